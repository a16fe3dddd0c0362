/* The lap of core/src/track/lap.ts once more, step for step, to say how far the one that ships is from compiled code. Built and run by npm run bench alone.
   Reads: rounds; car (18 numbers); curve points, each rpm and W; gears, radius, shift, top rpm, each ratio, share, kg; cells, each length, curvature, grade,
   camber, grip. Writes: the lap in seconds, then each round's milliseconds. A closed track, a car
   with gears left where the next pulls as hard, its brakes split and its torque not. */
#include <math.h>
#include <stdio.h>
#include <stdlib.h>
#include <time.h>

#define G 9.80665
#define RPM (M_PI / 30)
#define FASTEST 150.0
#define LEAST_V2 0.25

typedef struct { double length, curvature, grade, camber, grip; } Cell;
typedef struct { double ratio, mass, leave, top; } Gear;
typedef struct { double front, rear, f, r, use, left, resistance, slope, traction, braking; } Limits;

static double mass, frontShare, height, base, track, friction, k, gripFactor, brakingUse, drag, downFront, downRear, rolling, density, brakeShare, refMass, refShare;
static int drive; /* 0 rear, 1 front, 2 all, free */
static int points, gears, cells;
static double rpmAt[5000], wattAt[5000], radius, shiftS, topRpm;
static Gear gear[10];
static Cell *cell;

static double number(void) {
  double value;
  if (scanf("%lf", &value) != 1) exit(2);
  return value;
}

static double power(double rpm) {
  if (rpm <= rpmAt[0]) return wattAt[0] * rpm / rpmAt[0];
  if (rpm >= rpmAt[points - 1]) return wattAt[points - 1];
  int at = 0;
  while (rpm > rpmAt[at + 1]) at++;
  double share = (rpm - rpmAt[at]) / (rpmAt[at + 1] - rpmAt[at]);
  return wattAt[at] * (1 - share) + wattAt[at + 1] * share;
}

static double force(int i, double v) {
  double rpm = v * gear[i].ratio / (RPM * radius), least = RPM * radius / gear[i].ratio;
  return power(rpm > 1 ? rpm : 1) / (v > least ? v : least);
}

static int isAhead(int i, double v) {
  for (int next = i + 1; next < gears; next++) if (!(force(i, v) >= force(next, v) * (1 - 1e-12))) return 0;
  return 1;
}

static double lastAhead(int i, double top) {
  if (isAhead(i, top)) return top;
  for (int step = 199; step > 0; step--) {
    if (!isAhead(i, top * step / 200)) continue;
    double low = top * step / 200, high = top * (step + 1) / 200;
    for (int round = 0; round < 60; round++) {
      double middle = 0.5 * (low + high);
      if (isAhead(i, middle)) low = middle; else high = middle;
    }
    return low;
  }
  return top / 200;
}

static double axle(double load, double rest, double d, const Cell *at) {
  double x = fmax(load / rest, 1e-3);
  return fmax(0.01, friction * gripFactor * at->grip * ((1 + k) * x - k * (x * x + d * d)) / x);
}

static void ask(const Cell *at, double v, Limits *o) {
  double H = height / base, v2 = v * v, bend = fabs(at->curvature) * v2;
  double sine = at->camber == 0 ? 0 : sin(at->camber), cosine = at->camber == 0 ? 1 : cos(at->camber);
  double slope = sqrt(1 + at->grade * at->grade), down = G / slope;
  double across = bend * cosine - down * sine, pressed = down * cosine + bend * sine, q = 0.5 * density * v2;
  double d = fabs(across) * 2 * mass * height / (track * refMass * G), side = mass * fabs(across);
  o->front = fmax(1, mass * frontShare * pressed + q * downFront);
  o->rear = fmax(1, mass * (1 - frontShare) * pressed + q * downRear);
  o->f = axle(o->front, refMass * G * refShare, d, at);
  o->r = axle(o->rear, refMass * G * (1 - refShare), d, at);
  o->use = fmax(side * frontShare / (o->f * o->front), side * (1 - frontShare) / (o->r * o->rear));
  o->left = o->use < 1 ? sqrt(1 - o->use * o->use) : 0;
  o->resistance = q * drag + rolling * mass * pressed;
  o->slope = mass * G * at->grade / slope;
  double front = fmax(0, o->front + o->resistance * H), rear = fmax(0, o->rear - o->resistance * H);
  if (drive == 0) o->traction = o->r * H < 1 ? o->r * rear / (1 - o->r * H) : o->front / H;
  else if (drive == 1) o->traction = o->f * front / (1 + o->f * H);
  else o->traction = o->f * o->front + o->r * o->rear;
  double braked = o->r * rear / (1 - brakeShare + o->r * H);
  if (brakeShare > o->f * H) braked = fmin(braked, o->f * (o->front + o->resistance * H) / (brakeShare - o->f * H));
  o->braking = braked;
}

static int isHeldAt(const Cell *at, double v) {
  Limits o;
  ask(at, v, &o);
  return o.use < 1 && o.left * o.traction >= o.resistance + o.slope;
}

static double cornerSpeed(const Cell *at) {
  if (at->curvature == 0 && at->camber == 0) return FASTEST;
  double low = 0.1;
  while (low < FASTEST && isHeldAt(at, low + 2)) low += 2;
  if (low >= FASTEST) return FASTEST;
  double high = low + 2;
  for (int round = 0; round < 50 && high - low > 1e-9; round++) {
    double middle = 0.5 * (low + high);
    if (isHeldAt(at, middle)) low = middle; else high = middle;
  }
  return low;
}

/* The driver on the way forward. */
static double v, shiftLeft;
static int in, isByTyres;

static void takeBest(void) {
  double most = -1;
  int best = 0;
  for (int i = 0; i < gears; i++) {
    double pull = v <= gear[i].top ? force(i, v) : 0;
    if (pull > most * (1 + 1e-12)) { best = i; most = pull; }
  }
  in = most > 0 ? best : gears - 1;
  shiftLeft = 0;
}

static double accelerate(const Cell *at, double speed) {
  Limits o;
  ask(at, speed, &o);
  double resists = o.resistance + o.slope;
  double byEngine = ((shiftLeft > 0 ? 0 : force(in, speed)) - resists) / gear[in].mass, byTyres = (o.left * o.traction - resists) / mass;
  isByTyres = byTyres < byEngine;
  return isByTyres ? byTyres : byEngine;
}

static double heun(const Cell *at, double s) {
  double a = accelerate(at, v), b = accelerate(at, sqrt(fmax(LEAST_V2, v * v + 2 * a * s)));
  return sqrt(fmax(LEAST_V2, v * v + (a + b) * s));
}

static int isHeldThere(const Cell *at, double corner) {
  if (v < corner - 1e-9 || shiftLeft > 0) return 0;
  Limits o;
  ask(at, v, &o);
  return force(in, v) >= o.resistance + o.slope;
}

static void driveOver(const Cell *at, double corner) {
  double rest = at->length;
  if (isHeldThere(at, corner)) { isByTyres = 1; return; }
  for (int part = 0; rest > 1e-9 && part < 40; part++) {
    if (shiftLeft > 0) {
      double s = fmin(rest, shiftLeft * v);
      for (int round = 0; round < 4; round++) s = fmin(rest, 0.5 * shiftLeft * (v + heun(at, s)));
      double end = heun(at, s), took = 2 * s / (v + end);
      shiftLeft = s < rest ? 0 : fmax(0, shiftLeft - took);
      v = end;
      rest -= s;
      continue;
    }
    double end = heun(at, rest), leave = gear[in].leave;
    if (end > leave && v <= leave) {
      rest *= 1 - (leave * leave - v * v) / (end * end - v * v);
      v = leave;
      in++;
      shiftLeft = shiftS;
      continue;
    }
    if (end > gear[in].top && !isByTyres) end = fmax(gear[in].top, fmin(end, v));
    v = end;
    rest = 0;
  }
}

static double lap(double *corner, double *limit, double *went, double *back) {
  int n = cells, from = 0;
  for (int i = 0; i < gears; i++) {
    gear[i].top = topRpm * RPM * radius / gear[i].ratio;
    gear[i].leave = i == gears - 1 ? INFINITY : lastAhead(i, gear[i].top);
  }
  for (int i = 0; i < n; i++) {
    const Cell *a = &cell[i], *b = &cell[i > 0 ? i - 1 : 0];
    int isSame = i > 0 && a->curvature == b->curvature && a->grade == b->grade && a->camber == b->camber && a->grip == b->grip;
    corner[i] = isSame ? corner[i - 1] : cornerSpeed(a);
  }
  for (int i = 0; i <= n; i++) limit[i] = fmin(corner[(i + n - 1) % n], corner[i % n]);
  for (int i = 1; i < n; i++) if (limit[i] < limit[from]) from = i;
  v = limit[from];
  takeBest();
  went[from] = v;
  for (int step = 0; step < n; step++) {
    int i = (from + step) % n, wasShifting = shiftLeft > 0;
    double begin = v;
    driveOver(&cell[i], corner[i]);
    int isCapped = v >= limit[i + 1];
    if (isCapped) v = limit[i + 1];
    if (isCapped || (v < begin && shiftLeft == 0 && !wasShifting)) takeBest();
    went[i + 1] = v;
    if (i == n - 1 && from > 0) went[0] = v;
  }
  for (int i = 0; i <= n; i++) back[i] = went[i];
  for (int step = 0; step < n; step++) {
    int i = (from - 1 - step + 2 * n) % n;
    if (i == n - 1) back[n] = back[0];
    Limits o;
    double end = back[i + 1];
    ask(&cell[i], end, &o);
    double a = (brakingUse * o.left * o.braking + o.resistance + o.slope) / mass;
    ask(&cell[i], sqrt(fmax(LEAST_V2, end * end + 2 * a * cell[i].length)), &o);
    double b = (brakingUse * o.left * o.braking + o.resistance + o.slope) / mass;
    back[i] = fmin(went[i], sqrt(fmax(LEAST_V2, end * end + (a + b) * cell[i].length)));
  }
  back[n] = back[0];
  double seconds = 0;
  for (int i = 0; i < n; i++) seconds += 2 * cell[i].length / (back[i] + back[i + 1]);
  return seconds;
}

int main(void) {
  int rounds = (int)number();
  double *const car[] = {&mass, &frontShare, &height, &base, &track, &friction, &k, &gripFactor, &brakingUse, &drag, &downFront, &downRear, &rolling, &density, &brakeShare, &refMass, &refShare};
  for (size_t i = 0; i < sizeof car / sizeof *car; i++) *car[i] = number();
  drive = (int)number();
  points = (int)number();
  for (int i = 0; i < points; i++) { rpmAt[i] = number(); wattAt[i] = number(); }
  gears = (int)number(); radius = number(); shiftS = number(); topRpm = number();
  for (int i = 0; i < gears; i++) {
    gear[i].ratio = number();
    double share = number();
    gear[i].mass = mass * (1 + share) + number();
  }
  cells = (int)number();
  cell = malloc(cells * sizeof *cell);
  for (int i = 0; i < cells; i++) { cell[i].length = number(); cell[i].curvature = number(); cell[i].grade = number(); cell[i].camber = number(); cell[i].grip = number(); }
  double *room = malloc(4 * (cells + 1) * sizeof *room);
  for (int round = 0; round < rounds; round++) {
    struct timespec from, to;
    clock_gettime(CLOCK_MONOTONIC, &from);
    double seconds = lap(room, room + cells + 1, room + 2 * (cells + 1), room + 3 * (cells + 1));
    clock_gettime(CLOCK_MONOTONIC, &to);
    if (round == 0) printf("%.9f\n", seconds);
    printf("%.6f\n", (to.tv_sec - from.tv_sec) * 1e3 + (to.tv_nsec - from.tv_nsec) / 1e6);
  }
  return 0;
}
