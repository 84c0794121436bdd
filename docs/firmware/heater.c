/* A supply for a heater: one output that makes itself safe, one input that reads what it draws. */
#include "needle.h"

static const struct needle me = {
    .id = "TH-PS-12",
    .label = "Heater supply",
    .channels = 1,
    .names = {"current"},
    .outputs = 1,
    .output = {{"heater", 0, 12, 0}},
};

int main(void) {
    needle_begin(&me);
    for (;;) {
        needle_step();
    }
}
