/*
 * The arithmetic of core/fan/operating-point.ts, `scan` with the lowest stable crossing, as a bare loop: what a
 * processor takes for it with nothing around. Built by bench/points.ts where a C compiler is.
 *
 * Input file, doubles in the machine's order: problems, then of each: points, a, b, static head, and of each point
 * flow m3/s, pressure Pa, slope Pa.s/m3. Output: the median time of one run over all problems in ms, then one flow a
 * line, m3/s; -1 where there is none.
 */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

#define MOST_POINTS 64
#define RUNS 201
#define STEPS 6
#define LAST_STEP 1e-5
#define SETTLED 0.01

typedef struct {
  int n;
  double a, b, head;
  double q[MOST_POINTS], p[MOST_POINTS], m[MOST_POINTS];
} Problem;

typedef struct {
  double c0, c1, c2, c3;
} Segment;

/* how the fan is driven: read anew for each problem, as the core does */
typedef struct {
  double speed, density_ratio, parallel, series;
} Drive;
static volatile Drive sheet = {1, 1, 1, 1};

static double value(const Segment *s, double t) { return s->c0 + t * (s->c1 + t * (s->c2 + t * s->c3)); }

static double root_between(const Segment *s, double t0, double t1, double f0, double from) {
  double low = t0, high = t1, t = from;
  for (int i = 0; i < 60; i++) {
    const double f = value(s, t);
    if (f == 0) return t;
    if ((f > 0) == (f0 > 0)) low = t;
    else high = t;
    const double slope = s->c1 + t * (2 * s->c2 + 3 * t * s->c3);
    double next = t - f / slope;
    if (!(next > low && next < high)) next = (low + high) / 2;
    if (fabs(next - t) < 1e-13) return next;
    t = next;
  }
  return t;
}

/* Halley's method from the straight line's zero, as in the core. */
static double fall_of(const Segment *s, double right) {
  const double begin = s->c0 / (s->c0 - right);
  double t = begin, before = 0;
  for (int i = 0; i < STEPS; i++) {
    const double f = value(s, t), slope = s->c1 + t * (2 * s->c2 + 3 * t * s->c3);
    const double step = f * slope / (slope * slope - f * (s->c2 + 3 * t * s->c3));
    const double size = fabs(step);
    t -= step;
    if (size < LAST_STEP && size <= SETTLED * before && t >= 0 && t <= 1) return t;
    before = size;
  }
  return root_between(s, 0, 1, s->c0, begin);
}

static int monotone_parts(const Segment *s, double *cuts) {
  int n = 0;
  cuts[n++] = 0;
  const double disc = s->c2 * s->c2 - 3 * s->c3 * s->c1;
  if (disc > 0) {
    const double sum = -(s->c2 + (s->c2 < 0 ? -1 : 1) * sqrt(disc));
    const double first = sum / (3 * s->c3), second = s->c1 / sum;
    const double low = first < second ? first : second, high = first < second ? second : first;
    if (low > 0 && low < 1) cuts[n++] = low;
    if (high > 0 && high < 1 && high != low) cuts[n++] = high;
  } else if (s->c3 == 0 && s->c2 != 0) {
    const double only = -s->c1 / (2 * s->c2);
    if (only > 0 && only < 1) cuts[n++] = only;
  }
  cuts[n++] = 1;
  return n;
}

static double flow_of(const Problem *x, double a, double b, double head) {
  const int rises = a >= 0 && b >= 0;
  double left = x->p[0] - head - (a + b * x->q[0]) * x->q[0];
  int sign = left > 0 ? 1 : left < 0 ? -1 : 0;
  double zero_at = sign == 0 ? x->q[0] : -1;
  double cuts[4];
  for (int k = 0; k < x->n - 1; k++) {
    const double q = x->q[k], next = x->q[k + 1];
    const double drop = head + (a + b * next) * next;
    const double right = x->p[k + 1] - drop;
    const double rise = x->p[k + 1] - x->p[k];
    const int falls = rises && rise <= 0;
    if (rises && ((sign > 0 && (falls ? right : x->p[k] - drop) > 0) || (falls && sign < 0 && right < 0))) {
      left = right;
      continue;
    }
    const double h = next - q, hm0 = h * x->m[k], hm1 = h * x->m[k + 1];
    const Segment s = {left, hm0 - (a + 2 * b * q) * h, 3 * rise - 2 * hm0 - hm1 - b * h * h, hm0 + hm1 - 2 * rise};
    int parts = 2;
    if (falls) {
      cuts[0] = 0;
      cuts[1] = 1;
    } else parts = monotone_parts(&s, cuts);
    for (int i = 1; i < parts; i++) {
      const double t = cuts[i];
      const double f = t == 1 ? right : value(&s, t);
      if (f == 0) {
        zero_at = q + t * h;
        if (k == x->n - 2 && t == 1 && sign >= 0) return zero_at;
        continue;
      }
      const int now = f > 0 ? 1 : -1;
      if (sign != 0 && now != sign) {
        if (sign > 0) {
          if (zero_at >= 0) return zero_at;
          if (!falls) return q + h * root_between(&s, cuts[i - 1], t, sign, (cuts[i - 1] + t) / 2);
          return q + h * fall_of(&s, right);
        }
      } else if (sign == 0 && zero_at >= 0 && now < 0) return zero_at;
      sign = now;
      zero_at = -1;
    }
    left = right;
  }
  return -1;
}

static double stable_flow(const Problem *x, const Drive *drive) {
  const double flow_factor = drive->speed * drive->parallel;
  const double pressure_factor = drive->speed * drive->speed * drive->density_ratio * drive->series;
  if (!(flow_factor > 0 && pressure_factor > 0)) return -1;
  const double head = x->head / pressure_factor, a = x->a * flow_factor / pressure_factor;
  const double b = x->b * flow_factor * flow_factor / pressure_factor;
  const double at = flow_of(x, a, b, head);
  return at < 0 ? -1 : at * flow_factor;
}

static int rising(const void *a, const void *b) {
  const double x = *(const double *)a, y = *(const double *)b;
  return x < y ? -1 : x > y;
}

static double next_double(FILE *file) {
  double x;
  if (fread(&x, sizeof x, 1, file) != 1) exit(2);
  return x;
}

int main(int argc, char **argv) {
  FILE *file = argc > 1 ? fopen(argv[1], "rb") : NULL;
  if (!file) return 2;
  const int count = (int)next_double(file);
  Problem *problems = malloc(count * sizeof *problems);
  double *flows = malloc(count * sizeof *flows);
  for (int i = 0; i < count; i++) {
    Problem *x = problems + i;
    x->n = (int)next_double(file);
    if (x->n > MOST_POINTS) return 2;
    x->a = next_double(file);
    x->b = next_double(file);
    x->head = next_double(file);
    for (int k = 0; k < x->n; k++) {
      x->q[k] = next_double(file);
      x->p[k] = next_double(file);
      x->m[k] = next_double(file);
    }
  }
  double times[RUNS];
  for (int run = 0; run < RUNS; run++) {
    struct timespec from, to;
    clock_gettime(CLOCK_MONOTONIC, &from);
    for (int i = 0; i < count; i++) {
      const Drive drive = sheet;
      flows[i] = stable_flow(problems + i, &drive);
    }
    clock_gettime(CLOCK_MONOTONIC, &to);
    times[run] = (to.tv_sec - from.tv_sec) * 1e3 + (to.tv_nsec - from.tv_nsec) / 1e6;
  }
  qsort(times, RUNS, sizeof *times, rising);
  printf("%.9g\n", times[RUNS / 2]);
  for (int i = 0; i < count; i++) printf("%.17g\n", flows[i]);
  return 0;
}
