/* The line protocol (docs/formats/line-protocol.md) over a board layer. C99, no heap, no library but for numbers.

   Inputs are averaged: between two samples the board is read as often as it can be, and the mean is rounded to a whole
   count. Outputs are made safe when the computer says so, when it has said nothing for 1.5 s, and at the start. */
#include "needle.h"
#include "board.h"

#include <stdlib.h>
#include <string.h>

#define LINE 96
#define WATCHDOG_US 1500000u

static const struct needle *me;
static char line[LINE];
static int length;
static int overlong;
static int running;
static int checked;
static uint32_t interval;
static uint32_t started;
static uint32_t due;
static uint32_t heard;
static int on;
static int64_t sum[NEEDLE_MOST_CHANNELS];
static int32_t many;
static int32_t state[NEEDLE_MOST_CHANNELS];
static char out[160];
static int filled;

/* ---- lines to the computer ---- */

static void put(const char *text) {
    while (*text && filled < (int)sizeof out - 8) {
        out[filled++] = *text++;
    }
}

static void put_unsigned(uint32_t v) {
    char digits[12];
    int n = 0;
    do {
        digits[n++] = (char)('0' + v % 10);
        v /= 10;
    } while (v);
    while (n && filled < (int)sizeof out - 8) {
        out[filled++] = digits[--n];
    }
}

static void put_number(int32_t v) {
    if (v < 0) {
        put("-");
        put_unsigned((uint32_t)(-(int64_t)v));
    } else {
        put_unsigned((uint32_t)v);
    }
}

/* CRC-16 with polynomial 0x1021 from 0xFFFF. */
static uint16_t crc(void) {
    uint16_t c = 0xFFFF;
    for (int i = 0; i < filled; i++) {
        c ^= (uint16_t)((uint8_t)out[i] << 8);
        for (int b = 0; b < 8; b++) {
            c = (uint16_t)(c & 0x8000 ? c << 1 ^ 0x1021 : c << 1);
        }
    }
    return c;
}

/* Ends the line and sends it, with its checksum once that was asked for. */
static void end(void) {
    if (checked) {
        static const char hex[] = "0123456789ABCDEF";
        uint16_t c = crc();
        out[filled++] = '*';
        for (int i = 12; i >= 0; i -= 4) {
            out[filled++] = hex[c >> i & 15];
        }
    }
    out[filled++] = '\n';
    for (int i = 0; i < filled; i++) {
        board_putc(out[i]);
    }
    filled = 0;
}

/* ---- what the computer says ---- */

static void safe(void) {
    for (int i = 0; i < me->outputs; i++) {
        board_out(i, me->output[i].safe);
    }
    on = 0;
}

/* Whoever asks who this is begins anew, and knows of no checksums yet. */
static void describe(void) {
    checked = 0;
    put("= ");
    put(me->id);
    put(";");
    put(me->label);
    put(";");
    for (int i = 0; i < me->channels; i++) {
        put(i ? "," : "");
        put(me->names[i]);
    }
    put(";checksum");
    end();
}

static void set(const char *what) {
    const char *blank = strchr(what, ' ');
    size_t n = blank ? (size_t)(blank - what) : strlen(what);
    for (int i = 0; blank && i < me->outputs; i++) {
        const struct needle_output *o = &me->output[i];
        if (strlen(o->name) == n && !strncmp(o->name, what, n)) {
            char *rest;
            double v = strtod(blank, &rest);
            if (rest == blank || *rest || !(v >= o->lowest && v <= o->highest)) {
                put("! refused beyond what this output may be set to");
            } else {
                board_out(i, v);
                on = on || v != o->safe;
                put("! ");
                put(what);
            }
            end();
            return;
        }
    }
    put("! refused no such output");
    end();
}

static void begin_samples(int fresh) {
    uint32_t now = board_micros();
    if (fresh) {
        started = now;
    }
    running = 1;
    many = 0;
    memset(sum, 0, sizeof sum);
    due = now;
    for (int i = 0; i < me->channels; i++) {
        state[i] = -1;
    }
}

static void command(void) {
    if (!strcmp(line, "describe")) {
        describe();
    } else if (!strncmp(line, "rate ", 5)) {
        double r = strtod(line + 5, 0);
        interval = r > 0.01 && r <= 10000 ? (uint32_t)(1e6 / r + 0.5) : 100000u;
    } else if (!strcmp(line, "start")) {
        begin_samples(1);
    } else if (!strcmp(line, "resume")) {
        begin_samples(0);
    } else if (!strcmp(line, "stop")) {
        running = 0;
    } else if (!strncmp(line, "set ", 4)) {
        set(line + 4);
    } else if (!strcmp(line, "safe")) {
        safe();
    } else if (!strcmp(line, "checksum on")) {
        checked = 1;
    } else if (!strcmp(line, "test")) {
        put("! ok");
        end();
    }
    /* alive, identify, and what is not known: to have been heard is enough. */
}

static void listen(void) {
    int c;
    while ((c = board_getc()) >= 0) {
        heard = board_micros();
        if (c == '\n' || c == '\r') {
            line[length] = 0;
            if (length && !overlong) {
                command();
            }
            length = 0;
            overlong = 0;
        } else if (length < LINE - 1) {
            line[length++] = (char)c;
        } else {
            overlong = 1;
        }
    }
}

/* ---- what is measured ---- */

static void sample(uint32_t now) {
    for (int i = 0; i < me->channels; i++) {
        sum[i] += board_in(i);
    }
    many++;
    if ((int32_t)(now - due) < 0) {
        return;
    }
    put(": ");
    put_unsigned(now - started);
    for (int i = 0; i < me->channels; i++) {
        int64_t twice = 2 * sum[i] + (sum[i] < 0 ? -many : many);
        put(",");
        put_number((int32_t)(twice / (2 * many)));
        sum[i] = 0;
    }
    many = 0;
    due += interval;
    if ((int32_t)(now - due) >= 0) {
        due = now + interval;
    }
    end();
}

/* A line for each change of a gate, with the moment it was seen; the states at the start are the first line. */
static void edges(void) {
    int changed = 0;
    for (int i = 0; i < me->channels; i++) {
        int32_t v = board_in(i) ? 1 : 0;
        changed |= v != state[i];
        state[i] = v;
    }
    if (changed) {
        put(": ");
        put_unsigned(board_micros() - started);
        for (int i = 0; i < me->channels; i++) {
            put(",");
            put_number(state[i]);
        }
        end();
    }
}

void needle_begin(const struct needle *what) {
    me = what;
    interval = 100000u;
    heard = board_micros();
    safe();
}

void needle_step(void) {
    listen();
    uint32_t now = board_micros();
    if (on && now - heard > WATCHDOG_US) {
        safe();
    }
    if (running && me->gates) {
        edges();
    } else if (running) {
        sample(now);
    }
}
