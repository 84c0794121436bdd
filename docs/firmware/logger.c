/* A logger with two analogue inputs. */
#include "needle.h"

static const struct needle me = {
    .id = "TH-LG-12",
    .label = "Two-channel logger",
    .channels = 2,
    .names = {"a", "b"},
};

int main(void) {
    needle_begin(&me);
    for (;;) {
        needle_step();
    }
}
