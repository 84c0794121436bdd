/* An instrument that speaks the line protocol of Eager Needle. A sketch describes itself in one constant and calls
   needle_begin() once and needle_step() for ever. */
#ifndef NEEDLE_H
#define NEEDLE_H

#define NEEDLE_MOST_CHANNELS 8
#define NEEDLE_MOST_OUTPUTS 4

/* An output: its name, what it may be set to, what it is when nobody is there. */
struct needle_output {
    const char *name;
    double lowest;
    double highest;
    double safe;
};

/* What the instrument is. */
struct needle {
    const char *id;       /* serial, such as TH-LG-12 */
    const char *label;    /* what people call it */
    int channels;         /* how many inputs */
    const char *names[NEEDLE_MOST_CHANNELS]; /* as the sheet calls them under input */
    int gates;            /* 1: inputs are gates, one line an edge; 0: inputs are sampled */
    int outputs;          /* how many outputs */
    struct needle_output output[NEEDLE_MOST_OUTPUTS];
};

void needle_begin(const struct needle *what);
void needle_step(void);

#endif
