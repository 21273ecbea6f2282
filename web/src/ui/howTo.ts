// What each drawing shows. Short: what lies where, what a mark is, what to do with it.

export type Drawn =
  | 'map'
  | 'lock'
  | 'joints'
  | 'curves'
  | 'ladder'
  | 'quoits'
  | 'falls'
  | 'tread'
  | 'depths'
  | 'steer'
  | 'patch'
  | 'overlay'
  | 'axles'
  | 'moving'
  | 'order'
  | 'memory'
  | 'travel'
  | 'lies';

export const howTo: Record<Drawn, { title: string; lines: [string, ...string[]] }> = {
  map: {
    title: 'Reach map',
    lines: [
      'Across: camber, top leans out to the right. Up: caster, or toe of one wheel on a rear axle.',
      'Hatched window: where the aim wants the wheel. Woven field: what the adjusters give at this height, a dot for each whole step.',
      'Hollow half disc: as found. Filled: after the height, nothing turned. Ring: as it will be set. Dotted ellipse: nine in ten of the doubt.',
      'Dashed: what the part in hand gives. Press a point to set it there; by keys: arrows, Enter, + and −. Two fingers draw it nearer; one that rests looks through a glass, and sets when lifted.',
    ],
  },
  lock: {
    title: 'At full lock',
    lines: [
      'Camber of both wheels with the steering on its stop: outside wheel across, inside wheel up.',
      'Hollow: as found. Filled: after the height. Ring: as set. The field is what caster and camber together leave to choose.',
    ],
  },
  joints: {
    title: 'Joints, true scale',
    lines: [
      'Above from the front, below from the outside; solid as planned, dashed as found.',
      'Yellow line: the axis the wheel steers about. Where it meets the ground against the tyre is scrub; ahead of it is trail.',
    ],
  },
  curves: {
    title: 'Over height',
    lines: [
      'Across: height against as found. Solid: the side in hand, dashed: the other. Band: nine in ten of the doubt.',
      'Square: as found. Diamond: planned. Triangle: settled. Trapezoid: loaded. Ring: as set. The upright line is the slider: drag it by its handle.',
    ],
  },
  ladder: {
    title: 'Height ladder',
    lines: [
      'A ladder stands for a set of parts. A half rung is as wide as the share of the aim this side still reaches at that height.',
      'Where the ladder ends, the aim is out of reach, or a shaft, joint or stop ends it. Thin and dashed: only if the doubt falls well.',
      'Yellow line: the height wanted. Drag it by its handle, or press a ladder to go to its top.',
    ],
  },
  quoits: {
    title: 'Said, came, should be',
    lines: [
      'Rope ring: what was said before it was turned, nine times in ten inside. Half-disc peg: what was read since; whiskers are the doubt of the reading.',
      'Hatched window: where the aim wants it. In the ring judges us, in the window judges the car.',
      'Yellow hop: where the next order takes the wheel. Dashed squares A, B, C: where each explanation would have put the peg.',
    ],
  },
  falls: {
    title: 'How far it fell',
    lines: [
      'Up: hub to arch. From the setting on the left, the band is what was said of settling, with today at the right.',
      'Ring: what was said for today with the doubt of a tape. Half disc: what was taped. Below the ring: more fell than was said.',
    ],
  },
  tread: {
    title: 'Tread, cut across',
    lines: [
      'A section of the tyre from its inner to its outer edge, at the distance of the slider. Light: what is left. Hatched: what is gone.',
      'Yellow: the limit it is driven to. Shaded on top of the blocks: nine in ten of the doubt.',
    ],
  },
  depths: {
    title: 'Depths over distance',
    lines: [
      'Across: distance. Up: depth. Marks are what was read, bars the doubt of the gauge.',
      'Lines: what wear was worked out from them, band nine in ten, down to the limit.',
    ],
  },
  steer: {
    title: 'Over steering',
    lines: [
      'Across: turn of the steering wheel. Lines: camber of the outside and the inside wheel, as set and as found.',
      'The mark is the turn that is drawn beside it.',
    ],
  },
  patch: {
    title: 'Where the tyre stands',
    lines: [
      'The part of the tyre that carries: darker carries more. In a bend the outside wheel is drawn.',
      'Straight up the patch is even; leaning out it moves to the outer edge.',
    ],
  },
  overlay: {
    title: 'Corners on top of each other',
    lines: [
      'The same corner for each number of the list, true scale, from the front and from above.',
      'Dashes tell them apart: a solid line is 1.',
    ],
  },
  axles: {
    title: 'The car as read',
    lines: [
      'Each axle from behind or ahead, lean drawn larger than it is, as the words beside it say.',
      'Dashed: not read yet. Press a wheel or an angle to read it.',
    ],
  },
  moving: {
    title: 'The corner moves',
    lines: [
      'True scale, from the front and from the outside. Points are where the tape put them.',
      'Drag the height to see arms and angles go with it. A point drawn apart does not fit the others.',
    ],
  },
  order: {
    title: 'One order',
    lines: [
      'Left: the axle, the order in hand by its number. Right: what is turned, as seen from the wheel unless it says otherwise.',
      'Square: the original mark, it stays. Pointer: the new one. Spiral: whole turns. Two rings on an end: left-hand thread.',
    ],
  },
  memory: {
    title: 'Sold, and moved',
    lines: [
      'For each part: what it is sold to do, and what it did on each car of this shop, in order.',
      'Bar: where the next one is expected, nine in ten. A struck ring was outside of what was said.',
    ],
  },
  travel: {
    title: 'Over travel or steering',
    lines: [
      'Across: wheel travel, into bump to the right, or turn of the steering wheel. Up: the quantity named.',
      'The mark on the line is where the car stands now.',
    ],
  },
  lies: {
    title: 'How the axle lies',
    lines: [
      'The axle from above: dashed square to the car, solid as it was read, turned and off centre drawn larger.',
      'An arrow is the way its arms take it.',
    ],
  },
};
