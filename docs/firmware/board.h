/* The board layer: five functions, and nothing else of the board is known to the rest. */
#ifndef BOARD_H
#define BOARD_H

#include <stdint.h>

/* Microseconds since the board was switched on; goes round after 2^32. */
uint32_t board_micros(void);

/* The next byte from the computer, or -1 when there is none. Never waits. */
int board_getc(void);

/* One byte to the computer. */
void board_putc(char c);

/* An input: counts of its converter, or of a gate 1 when it is blocked and 0 when it is not. */
int32_t board_in(int channel);

/* An output, in the unit that its name promises. */
void board_out(int channel, double value);

#endif
