// The name a gate was signed with last on this device: whoever signs in, until somebody writes another.
const SIGNED = 'bold-stance.signed';

export const lastSigned = () => localStorage.getItem(SIGNED) ?? '';
export const keepSigned = (name: string) => localStorage.setItem(SIGNED, name.trim());
