/* The board layer on a computer with POSIX: a pseudo-terminal in place of the serial line, made-up inputs. The first
   line on standard output is where the instrument is plugged in; then each output that is set, one a line.

   Inputs: counts 1000 + 500 per channel, plus a sawtooth of 0 to 99 in steps of a millisecond. Odd channels are
   negative. With GATES set in the environment, channel k is blocked for 10 ms of every 40 ms, 5 ms later each. */
#define _XOPEN_SOURCE 600
#include "board.h"

#include <fcntl.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>
#include <unistd.h>

static int line = -1;

static void plug(void) {
    if (line >= 0) {
        return;
    }
    line = posix_openpt(O_RDWR | O_NOCTTY);
    if (line < 0 || grantpt(line) || unlockpt(line)) {
        exit(1);
    }
    printf("%s\n", ptsname(line));
    fflush(stdout);
    /* Held open, so that this end does not see a hang-up whenever the computer closes the port. */
    if (open(ptsname(line), O_RDWR | O_NOCTTY) < 0) {
        exit(1);
    }
    fcntl(line, F_SETFL, O_NONBLOCK);
}

/* The clock stands still while the computer runs something else: a board has its processor to itself, so that no
   time passes between two looks at the inputs in which it could not have looked. */
uint32_t board_micros(void) {
    static uint64_t before;
    static uint32_t mine;
    struct timespec t;
    clock_gettime(CLOCK_MONOTONIC, &t);
    uint64_t now = (uint64_t)t.tv_sec * 1000000u + (uint64_t)t.tv_nsec / 1000u;
    if (before) {
        uint64_t passed = now - before;
        mine += (uint32_t)(passed < 1000 ? passed : 1000);
    }
    before = now;
    return mine;
}

int board_getc(void) {
    unsigned char c;
    plug();
    if (read(line, &c, 1) == 1) {
        return c;
    }
    /* A computer has other things to do. */
    struct timespec little = {0, 20000};
    nanosleep(&little, 0);
    if (getppid() == 1) {
        exit(0);
    }
    return -1;
}

void board_putc(char c) {
    plug();
    for (int tries = 0; write(line, &c, 1) != 1 && tries < 1000; tries++) {
        struct timespec little = {0, 100000};
        nanosleep(&little, 0);
    }
}

int32_t board_in(int channel) {
    uint32_t now = board_micros();
    if (getenv("GATES")) {
        return (now / 1000 + 40000 - 5 * (uint32_t)channel) % 40 < 10;
    }
    int32_t v = 1000 + 500 * channel + (int32_t)(now / 1000 % 100);
    return channel % 2 ? -v : v;
}

void board_out(int channel, double value) {
    plug();
    printf("%d %g\n", channel, value);
    fflush(stdout);
}
