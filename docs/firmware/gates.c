/* A gate timer with two gates. */
#include "needle.h"

static const struct needle me = {
    .id = "TH-GT-12",
    .label = "Two-gate timer",
    .channels = 2,
    .names = {"upper", "lower"},
    .gates = 1,
};

int main(void) {
    needle_begin(&me);
    for (;;) {
        needle_step();
    }
}
