# English. One message for each thing the core says.
# $x is printed already: a quantity in the units asked for, a name, a further message. Of a word, $x chooses and $x-w prints;
# of a list, $x joins with commas, $x-and with an "and" before the last, $x-semi with semicolons, $x-all with spaces.

list-and = and

word-left = left
word-right = right
word-front = front
word-rear = rear
word-camber = camber
word-caster = caster
word-toe = toe
word-cross-camber = cross-camber
word-cross-caster = cross-caster
word-height = height
