package fixshelf.engine;

import fixshelf.plan.Operation;
import java.util.Arrays;
import java.util.List;
import java.util.concurrent.atomic.LongAdder;
import java.util.stream.IntStream;
import org.duckdb.DuckDBReadableVector;
import org.jspecify.annotations.Nullable;

/// Counts what became of keys that were looked up, on all threads of the engine. A key that was found is told by its
/// number, one that was not by a negative number made of its letters.
final class KeyTally {
    /// Different keys without a match are counted up to here.
    static final int MOST_KEYS = 1_000_000;

    private static final int PARTS = 16;

    private final int[] sizes;
    private final long keyless;
    /// Whether a row met the key; a thread may see the mark of another one late, and sets it once more.
    private final boolean[] used;
    private final LongAdder without = new LongAdder();
    private final LongAdder ambiguous = new LongAdder();
    private final LongAdder different = new LongAdder();
    private final Numbers[] unmatched = new Numbers[PARTS];

    /// @param sizes how many rows have each key
    /// @param keyless how many rows have none
    KeyTally(List<Integer> sizes, long keyless) {
        this.sizes = sizes.stream().mapToInt(Integer::intValue).toArray();
        this.keyless = keyless;
        this.used = new boolean[this.sizes.length];
        Arrays.setAll(unmatched, _ -> new Numbers());
    }

    /// The number of a key that was not found: 63 bits of it, so that among a million keys two share one in one run of
    /// ten million.
    static long unmatched(@Nullable String[] key) {
        long hash = key.length;
        for (String part : key) {
            hash = mixed(hash + (part == null ? 1 : 2));
            for (int i = 0; part != null && i < part.length(); i++) {
                hash = (hash ^ part.charAt(i)) * 0x100000001b3L;
                hash ^= hash >>> 32;
            }
        }
        return mixed(hash) | Long.MIN_VALUE;
    }

    private static long mixed(long hash) {
        long mixed = (hash ^ (hash >>> 33)) * 0xff51afd7ed558ccdL;
        mixed = (mixed ^ (mixed >>> 33)) * 0xc4ceb9fe1a85ec53L;
        return mixed ^ (mixed >>> 33);
    }

    /// Adds the numbers of the rows that came so far.
    void add(DuckDBReadableVector numbers, boolean[] on) {
        long none = 0;
        long several = 0;
        long fresh = 0;
        boolean counts = different.sum() < MOST_KEYS;
        for (int row = 0; row < on.length; row++) {
            long number = on[row] ? numbers.getLong(row) : 0;
            if (!on[row]) {
                continue;
            }
            if (number < 0) {
                none++;
                fresh += counts && unmatched[(int) (number & PARTS - 1)].add(number) ? 1 : 0;
                continue;
            }
            int key = (int) number;
            if (!used[key]) {
                used[key] = true;
            }
            several += sizes[key] > 1 ? 1 : 0;
        }
        without.add(none);
        ambiguous.add(several);
        different.add(fresh);
    }

    /// How many rows a report has.
    long rows(String report) {
        return switch (report) {
            case Operation.Report.WITHOUT_MATCH -> without.sum();
            case Operation.Report.AMBIGUOUS -> ambiguous.sum();
            case Operation.Report.UNMATCHED_KEYS -> Math.min(different.sum(), MOST_KEYS);
            default ->
                keyless
                        + IntStream.range(0, used.length)
                                .filter(k -> !used[k])
                                .mapToLong(k -> sizes[k])
                                .sum();
        };
    }

    /// Whether there may be more rows in a report than were counted.
    boolean mayBeMore(String report) {
        return report.equals(Operation.Report.UNMATCHED_KEYS) && different.sum() >= MOST_KEYS;
    }

    /// Different numbers, none of which is 0.
    private static final class Numbers {
        private long[] places = new long[1 << 10];
        private int filled;

        synchronized boolean add(long number) {
            if (!put(places, number)) {
                return false;
            }
            if (++filled * 2 > places.length) {
                long[] larger = new long[places.length * 2];
                for (long known : places) {
                    if (known != 0) {
                        put(larger, known);
                    }
                }
                places = larger;
            }
            return true;
        }

        private static boolean put(long[] places, long number) {
            int place = (int) (number >>> 20) & places.length - 1;
            while (places[place] != 0) {
                if (places[place] == number) {
                    return false;
                }
                place = place + 1 & places.length - 1;
            }
            places[place] = number;
            return true;
        }
    }
}
