// AssemblyScript, not TypeScript: compiled to WebAssembly by scripts/build-kernel.mjs. ../plain-engine.ts does the
// same in another way: draws and tapes give the same digits, sums differ by rounding alone. All addresses are bytes in the module's memory; ../kernel-engine.ts
// lays it out. No multiply-add in one rounding is used: not every processor has one.

const LANES: i32 = 16;
const LANE_BYTES: usize = 128;
/** Draws of each stream that are made before they are counted. */
const AHEAD: u32 = 64;

/**
 * Draws of four resamples side by side, xoshiro128**, counted.
 * @param states four words of four streams, word after word; left where the stream stands then
 * @param counts of the first resample; the next stands `stride` bytes on
 * @param units as many draws, with replacement
 * @param room for 16 · AHEAD bytes
 */
export function draw(states: usize, counts: usize, stride: usize, units: u32, room: usize): void {
  let a = v128.load(states);
  let b = v128.load(states, 16);
  let c = v128.load(states, 32);
  let d = v128.load(states, 48);
  const many = i32x4.splat(units);
  for (let from: u32 = 0; from < units; from += AHEAD) {
    const end = room + (<usize>min(AHEAD, units - from) << 4);
    for (let to = room; to < end; to += 16) {
      const x = i32x4.add(b, i32x4.shl(b, 2)); // 5 · b
      const y = v128.or(i32x4.shl(x, 7), i32x4.shr_u(x, 25));
      const bits = i32x4.add(y, i32x4.shl(y, 3)); // 9 · y
      const t = i32x4.shl(b, 9);
      c = v128.xor(c, a);
      d = v128.xor(d, b);
      b = v128.xor(b, c);
      a = v128.xor(a, d);
      c = v128.xor(c, t);
      d = v128.or(i32x4.shl(d, 11), i32x4.shr_u(d, 21));
      // the upper halves of bits · units
      const low = i64x2.extmul_low_i32x4_u(bits, many);
      const high = i64x2.extmul_high_i32x4_u(bits, many);
      v128.store(to, i32x4.shuffle(low, high, 1, 3, 5, 7));
    }
    count(room, end, counts);
    count(room + 4, end, counts + stride);
    count(room + 8, end, counts + 2 * stride);
    count(room + 12, end, counts + 3 * stride);
  }
  v128.store(states, a);
  v128.store(states, b, 16);
  v128.store(states, c, 32);
  v128.store(states, d, 48);
}

@inline
function countOne(at: usize, counts: usize): void {
  const place = counts + <usize>load<u32>(at);
  store<u8>(place, load<u8>(place) + 1);
}

/** Counts every fourth of the drawn places. */
@inline
function count(from: usize, end: usize, counts: usize): void {
  let at = from;
  for (; at + 112 < end; at += 128) {
    countOne(at, counts);
    countOne(at + 16, counts);
    countOne(at + 32, counts);
    countOne(at + 48, counts);
    countOne(at + 64, counts);
    countOne(at + 80, counts);
    countOne(at + 96, counts);
    countOne(at + 112, counts);
  }
  for (; at < end; at += 16) countOne(at, counts);
}

/** Copies a few words; the module's own way to copy is made for many. */
@inline
function copy(to: usize, from: usize, bytes: usize): void {
  for (let at: usize = 0; at < bytes; at += 16) v128.store(to + at, v128.load(from + at));
}

/** The products of a row with itself, packed row by row of the lower triangle. The last store may reach 8 bytes beyond. */
@inline
function products(row: usize, width: i32, to: usize): void {
  let out = to;
  for (let a = 0; a < width; a++) {
    const one = f64x2.splat(load<f64>(row + (<usize>a << 3)));
    for (let b = 0; b <= a; b += 2) v128.store(out + (<usize>b << 3), f64x2.mul(one, v128.load(row + (<usize>b << 3))));
    out += <usize>(a + 1) << 3;
  }
}

/**
 * The products of some rows, each padded to `bytes`.
 * @param width of a row; 0 when rows are sums of products already
 */
function formProducts(rows: usize, width: i32, count: i32, bytes: usize, to: usize): void {
  if (width == 0) {
    memory.copy(to, rows, bytes * <usize>count);
    return;
  }
  const rowBytes = (<usize>width << 3) + 8; // a row is followed by a gap, so that loads in pairs stay inside
  for (let i = 0; i < count; i++) products(rows + <usize>i * rowBytes, width, to + <usize>i * bytes);
}

/**
 * Adds listed rows to sums that stay in the processor meanwhile. `width` is known where this is written in, so that what is beyond it falls away.
 */
@inline
function add(width: i32, sums: usize, rows: usize, list: usize, end: usize): void {
  const entry = <u32>width << 4;
  let s0 = v128.load(sums, 0);
  let s1 = v128.load(sums, 16);
  let s2 = v128.load(sums, 32);
  let s3 = v128.load(sums, 48);
  let s4 = s0, s5 = s0, s6 = s0, s7 = s0, s8 = s0, s9 = s0, s10 = s0, s11 = s0, s12 = s0, s13 = s0;
  if (width > 4) { s4 = v128.load(sums, 64); s5 = v128.load(sums, 80); }
  if (width > 6) { s6 = v128.load(sums, 96); s7 = v128.load(sums, 112); }
  if (width > 8) { s8 = v128.load(sums, 128); s9 = v128.load(sums, 144); }
  if (width > 10) { s10 = v128.load(sums, 160); s11 = v128.load(sums, 176); }
  if (width > 12) { s12 = v128.load(sums, 192); s13 = v128.load(sums, 208); }
  for (let at = list; at < end; at++) {
    const e = rows + <usize>(<u32>load<u8>(at) * entry);
    s0 = f64x2.add(s0, v128.load(e, 0));
    s1 = f64x2.add(s1, v128.load(e, 16));
    s2 = f64x2.add(s2, v128.load(e, 32));
    s3 = f64x2.add(s3, v128.load(e, 48));
    if (width > 4) { s4 = f64x2.add(s4, v128.load(e, 64)); s5 = f64x2.add(s5, v128.load(e, 80)); }
    if (width > 6) { s6 = f64x2.add(s6, v128.load(e, 96)); s7 = f64x2.add(s7, v128.load(e, 112)); }
    if (width > 8) { s8 = f64x2.add(s8, v128.load(e, 128)); s9 = f64x2.add(s9, v128.load(e, 144)); }
    if (width > 10) { s10 = f64x2.add(s10, v128.load(e, 160)); s11 = f64x2.add(s11, v128.load(e, 176)); }
    if (width > 12) { s12 = f64x2.add(s12, v128.load(e, 192)); s13 = f64x2.add(s13, v128.load(e, 208)); }
  }
  v128.store(sums, s0, 0);
  v128.store(sums, s1, 16);
  v128.store(sums, s2, 32);
  v128.store(sums, s3, 48);
  if (width > 4) { v128.store(sums, s4, 64); v128.store(sums, s5, 80); }
  if (width > 6) { v128.store(sums, s6, 96); v128.store(sums, s7, 112); }
  if (width > 8) { v128.store(sums, s8, 128); v128.store(sums, s9, 144); }
  if (width > 10) { v128.store(sums, s10, 160); v128.store(sums, s11, 176); }
  if (width > 12) { v128.store(sums, s12, 192); v128.store(sums, s13, 208); }
}
function add4(sums: usize, rows: usize, list: usize, end: usize): void { add(4, sums, rows, list, end); }
function add6(sums: usize, rows: usize, list: usize, end: usize): void { add(6, sums, rows, list, end); }
function add8(sums: usize, rows: usize, list: usize, end: usize): void { add(8, sums, rows, list, end); }
function add10(sums: usize, rows: usize, list: usize, end: usize): void { add(10, sums, rows, list, end); }
function add12(sums: usize, rows: usize, list: usize, end: usize): void { add(12, sums, rows, list, end); }
function add14(sums: usize, rows: usize, list: usize, end: usize): void { add(14, sums, rows, list, end); }
/** Takes listed rows away. A function of its own: with both loops in one the compiler runs out of registers and takes three times as long. */
@inline
function take(width: i32, sums: usize, rows: usize, list: usize, end: usize): void {
  const entry = <u32>width << 4;
  let s0 = v128.load(sums, 0);
  let s1 = v128.load(sums, 16);
  let s2 = v128.load(sums, 32);
  let s3 = v128.load(sums, 48);
  let s4 = s0, s5 = s0, s6 = s0, s7 = s0, s8 = s0, s9 = s0, s10 = s0, s11 = s0, s12 = s0, s13 = s0;
  if (width > 4) { s4 = v128.load(sums, 64); s5 = v128.load(sums, 80); }
  if (width > 6) { s6 = v128.load(sums, 96); s7 = v128.load(sums, 112); }
  if (width > 8) { s8 = v128.load(sums, 128); s9 = v128.load(sums, 144); }
  if (width > 10) { s10 = v128.load(sums, 160); s11 = v128.load(sums, 176); }
  if (width > 12) { s12 = v128.load(sums, 192); s13 = v128.load(sums, 208); }
  for (let at = list; at < end; at++) {
    const e = rows + <usize>(<u32>load<u8>(at) * entry);
    s0 = f64x2.sub(s0, v128.load(e, 0));
    s1 = f64x2.sub(s1, v128.load(e, 16));
    s2 = f64x2.sub(s2, v128.load(e, 32));
    s3 = f64x2.sub(s3, v128.load(e, 48));
    if (width > 4) { s4 = f64x2.sub(s4, v128.load(e, 64)); s5 = f64x2.sub(s5, v128.load(e, 80)); }
    if (width > 6) { s6 = f64x2.sub(s6, v128.load(e, 96)); s7 = f64x2.sub(s7, v128.load(e, 112)); }
    if (width > 8) { s8 = f64x2.sub(s8, v128.load(e, 128)); s9 = f64x2.sub(s9, v128.load(e, 144)); }
    if (width > 10) { s10 = f64x2.sub(s10, v128.load(e, 160)); s11 = f64x2.sub(s11, v128.load(e, 176)); }
    if (width > 12) { s12 = f64x2.sub(s12, v128.load(e, 192)); s13 = f64x2.sub(s13, v128.load(e, 208)); }
  }
  v128.store(sums, s0, 0);
  v128.store(sums, s1, 16);
  v128.store(sums, s2, 32);
  v128.store(sums, s3, 48);
  if (width > 4) { v128.store(sums, s4, 64); v128.store(sums, s5, 80); }
  if (width > 6) { v128.store(sums, s6, 96); v128.store(sums, s7, 112); }
  if (width > 8) { v128.store(sums, s8, 128); v128.store(sums, s9, 144); }
  if (width > 10) { v128.store(sums, s10, 160); v128.store(sums, s11, 176); }
  if (width > 12) { v128.store(sums, s12, 192); v128.store(sums, s13, 208); }
}
function take4(sums: usize, rows: usize, list: usize, end: usize): void { take(4, sums, rows, list, end); }
function take6(sums: usize, rows: usize, list: usize, end: usize): void { take(6, sums, rows, list, end); }
function take8(sums: usize, rows: usize, list: usize, end: usize): void { take(8, sums, rows, list, end); }
function take10(sums: usize, rows: usize, list: usize, end: usize): void { take(10, sums, rows, list, end); }
function take12(sums: usize, rows: usize, list: usize, end: usize): void { take(12, sums, rows, list, end); }
function take14(sums: usize, rows: usize, list: usize, end: usize): void { take(14, sums, rows, list, end); }
/** Puts the places of the marked ones of eight rows on a list. `patterns` holds for each mask the places of its bits, a byte each. */
@inline
function listMarked(mask: i32, first: i32, patterns: usize, list: usize): usize {
  const places = i8x16.add(v128.load64_zero(patterns + (<usize>mask << 3)), i8x16.splat(<i8>first));
  v128.store64_lane(list, places, 0);
  return list + <usize>popcnt(mask);
}

/** Lists the rows of a block that a resample does not hold. A list may be written up to 8 bytes beyond its end. */
function listMissing(counts: usize, count: i32, patterns: usize, list: usize): usize {
  const zero = i8x16.splat(0);
  for (let i = 0; i < count; i += 8) {
    const times = v128.load64_zero(counts + <usize>i);
    list = listMarked(i8x16.bitmask(i8x16.eq(times, zero)) & 255, i, patterns, list);
  }
  return list;
}

/** Lists the rows that it holds more than once, as often as it does beyond that: of each eight rows those held twice or more, then three times or more, and so on. */
function listRepeated(counts: usize, count: i32, patterns: usize, list: usize): usize {
  const one = i8x16.splat(1);
  const two = i8x16.splat(2);
  for (let i = 0; i < count; i += 8) {
    const times = v128.load64_zero(counts + <usize>i);
    list = listMarked(i8x16.bitmask(i8x16.gt_u(times, one)), i, patterns, list);
    list = listMarked(i8x16.bitmask(i8x16.gt_u(times, two)), i, patterns, list);
    for (let level = 3; ; level++) {
      const mask = i8x16.bitmask(i8x16.gt_u(times, i8x16.splat(<i8>level)));
      if (mask == 0) break;
      list = listMarked(mask, i, patterns, list);
    }
  }
  return list;
}

/**
 * Sums of counted rows for some resamples: all rows once, less those a resample does not hold, and those it repeats.
 * @param rows of `width` (0: sums of products, `strips · strip` words each)
 * @param counts a byte a row; the next resample stands `stride` on, a multiple of 8, what is beyond the rows counted once
 * @param total the sums of all rows once
 * @param sums strip after strip, and in it resample after resample, `strip` words each; overwritten
 * @param blockRows rows whose products stand ready at a time, a multiple of 8 and at most 256: a strip of them stays nearest to the processor
 * @param room for the products of a block, `table` for the same strip after strip, `list` for those of all resamples, `lengths` for 8 bytes a resample
 * @param patterns for each of 256 masks the places of its bits, 8 bytes
 */
export function sum(
  rows: usize, width: i32, units: i32, counts: usize, stride: usize, resamples: i32, total: usize, sums: usize,
  strips: i32, strip: i32, blockRows: i32, room: usize, table: usize, list: usize, lengths: usize, patterns: usize,
): void {
  const entry = <usize>strip << 4;
  const bytes = entry * <usize>strips;
  const rowBytes = width == 0 ? bytes : (<usize>width << 3) + 8;
  const stripSums = entry * <usize>resamples;
  const stripTable = entry * <usize>blockRows;
  // by reference: written into this function they would share its registers, and take twice as long
  // by reference, not by name: written into this function they would share its registers
  const plus = strip == 14 ? add14 : strip == 12 ? add12 : strip == 10 ? add10 : strip == 8 ? add8 : strip == 6 ? add6 : add4;
  const minus = strip == 14 ? take14 : strip == 12 ? take12 : strip == 10 ? take10 : strip == 8 ? take8 : strip == 6 ? take6 : take4;
  for (let s = 0; s < strips; s++) {
    for (let r = 0; r < resamples; r++) {
      copy(sums + <usize>s * stripSums + <usize>r * entry, total + <usize>s * entry, entry);
    }
  }
  for (let from = 0; from < units; from += blockRows) {
    const many = min(blockRows, units - from);
    const padded = (many + 7) & ~7;
    formProducts(rows + <usize>from * rowBytes, width, many, bytes, room);
    for (let s = 0; s < strips; s++) {
      for (let i = 0; i < many; i++) {
        copy(table + <usize>s * stripTable + <usize>i * entry, room + <usize>i * bytes + <usize>s * entry, entry);
      }
    }
    let end = list;
    for (let r = 0; r < resamples; r++) {
      const drawn = counts + <usize>r * stride + <usize>from;
      const middle = listMissing(drawn, padded, patterns, end);
      end = listRepeated(drawn, padded, patterns, middle);
      store<u32>(lengths + (<usize>r << 3), <u32>middle);
      store<u32>(lengths + (<usize>r << 3), <u32>end, 4);
    }
    for (let s = 0; s < strips; s++) {
      const at = table + <usize>s * stripTable;
      let to = sums + <usize>s * stripSums;
      let start = list;
      for (let r = 0; r < resamples; r++) {
        const last = <usize>load<u32>(lengths + (<usize>r << 3), 4);
        const middle = <usize>load<u32>(lengths + (<usize>r << 3));
        minus(to, at, start, middle);
        plus(to, at, middle, last);
        start = last;
        to += entry;
      }
    }
  }
}

/**
 * All rows less one, for rows one after the other, laid out as `sum` does.
 * @param total the sums of all rows once
 */
export function leaveOut(
  rows: usize, width: i32, count: i32, total: usize, sums: usize, strips: i32, strip: i32, stripSums: usize, room: usize,
): void {
  const entry = <usize>strip << 4;
  const bytes = entry * <usize>strips;
  const rowBytes = width == 0 ? bytes : (<usize>width << 3) + 8;
  for (let i = 0; i < count; i++) {
    formProducts(rows + <usize>i * rowBytes, width, 1, bytes, room);
    for (let s = 0; s < strips; s++) {
      const to = sums + <usize>s * stripSums + <usize>i * entry;
      for (let at: usize = 0; at < entry; at += 16) {
        const from = <usize>s * entry + at;
        v128.store(to + at, f64x2.sub(v128.load(total + from), v128.load(room + from)));
      }
    }
  }
}

/**
 * Puts sums of LANES resamples side by side into the tape's registers.
 * @param sums of the first of them in the first strip
 * @param inputs offset of the register of each input, −1 where the tape does not read it
 */
export function gather(sums: usize, strip: i32, stripSums: usize, inputs: usize, count: i32, registers: usize): void {
  const entry = <usize>strip << 4;
  for (let k = 0; k < count; k++) {
    const to = load<i32>(inputs + (<usize>k << 2));
    if (to < 0) continue;
    const s = k / (2 * strip);
    let from = sums + <usize>s * stripSums + (<usize>(k - s * 2 * strip) << 3);
    for (let lane = 0; lane < LANES; lane++) {
      store<f64>(registers + <usize>to + (<usize>lane << 3), load<f64>(from));
      from += entry;
    }
  }
}

/** Runs a tape on LANES resamples. `code` holds [op, dst, a, b, c], registers as offsets; output k goes to `out` + k · stride. */
export function run(code: usize, end: usize, r: usize, out: usize, stride: usize): void {
  const singular = f64x2.splat(1e-10);
  const none = f64x2.splat(NaN);
  for (let at = code; at < end; at += 20) {
    const op = load<i32>(at);
    const a = r + <usize>load<i32>(at, 8);
    if (op == 8) {
      copy(out + <usize>load<i32>(at, 4) * stride, a, LANE_BYTES);
      continue;
    }
    const d = r + <usize>load<i32>(at, 4);
    const b = r + <usize>load<i32>(at, 12);
    const c = r + <usize>load<i32>(at, 16);
    if (op == 5) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.add(v128.load(c + i), f64x2.mul(v128.load(a + i), v128.load(b + i))));
    else if (op == 6) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.sub(v128.load(c + i), f64x2.mul(v128.load(a + i), v128.load(b + i))));
    else if (op == 2) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.mul(v128.load(a + i), v128.load(b + i)));
    else if (op == 0) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.add(v128.load(a + i), v128.load(b + i)));
    else if (op == 1) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.sub(v128.load(a + i), v128.load(b + i)));
    else if (op == 3) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.div(v128.load(a + i), v128.load(b + i)));
    else if (op == 4) for (let i: usize = 0; i < LANE_BYTES; i += 16) v128.store(d + i, f64x2.sqrt(v128.load(a + i)));
    else
      for (let i: usize = 0; i < LANE_BYTES; i += 16) {
        const value = v128.load(a + i);
        v128.store(d + i, v128.bitselect(f64x2.sqrt(value), none, f64x2.gt(value, f64x2.mul(singular, v128.load(b + i)))));
      }
  }
}
