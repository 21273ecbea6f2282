// The tests' hand: presses and types without asking at every element up the tree whether a style lets it be pressed, which
// costs a test with a large form half a minute.
import { PointerEventsCheckLevel, userEvent } from '@testing-library/user-event';

const hand = userEvent.setup({ pointerEventsCheck: PointerEventsCheckLevel.Never });
export default hand;
