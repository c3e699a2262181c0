package fixshelf.engine;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.LongAdder;
import org.duckdb.DuckDBColumnType;
import org.duckdb.DuckDBDataChunkReader;
import org.duckdb.DuckDBReadableVector;
import org.duckdb.DuckDBWritableVector;

/// Counts what rows tell as they pass through a query, on all threads of the engine. A row passes stage after stage,
/// until one does not let it through; what comes after that is not counted for it.
public final class Tally {
    /// What is asked of a row.
    public enum Stage {
        /// Whether it goes on: only where a condition is true.
        KEEPS,
        /// Whether a condition is true, which changes nothing.
        SHOWS,
        /// A number that is summed up.
        ADDS,
        /// The number of the key that it met, which changes nothing.
        MEETS
    }

    private final List<Stage> stages;
    /// What the stages that meet keys count in, at their places.
    private final Map<Integer, KeyTally> met;
    private final List<LongAdder> sums = new ArrayList<>();
    private final LongAdder rows = new LongAdder();
    private final LongAdder passed = new LongAdder();

    Tally(List<Stage> stages, Map<Integer, KeyTally> met) {
        this.stages = List.copyOf(stages);
        this.met = Map.copyOf(met);
        stages.forEach(_ -> sums.add(new LongAdder()));
    }

    /// How many rows came.
    public long rows() {
        return rows.sum();
    }

    /// How many went through all stages.
    public long passed() {
        return passed.sum();
    }

    /// Of a stage that keeps or shows, how many rows its condition was true for; of one that adds, the sum.
    public long sum(int stage) {
        return sums.get(stage).sum();
    }

    List<DuckDBColumnType> parameters() {
        return stages.stream()
                .map(s -> s == Stage.ADDS || s == Stage.MEETS ? DuckDBColumnType.BIGINT : DuckDBColumnType.BOOLEAN)
                .toList();
    }

    void apply(DuckDBDataChunkReader chunk, DuckDBWritableVector out) {
        int count = (int) chunk.rowCount();
        boolean[] on = new boolean[count];
        java.util.Arrays.fill(on, true);
        for (int stage = 0; stage < stages.size(); stage++) {
            KeyTally keys = met.get(stage);
            if (keys == null) {
                sums.get(stage).add(sum(stages.get(stage), chunk.vector(stage), on));
            } else {
                keys.add(chunk.vector(stage), on);
            }
        }
        long through = 0;
        for (int row = 0; row < count; row++) {
            out.setBoolean(row, on[row]);
            through += on[row] ? 1 : 0;
        }
        rows.add(count);
        passed.add(through);
    }

    private static long sum(Stage stage, DuckDBReadableVector values, boolean[] on) {
        long sum = 0;
        for (int row = 0; row < on.length; row++) {
            if (!on[row] || values.isNull(row)) {
                on[row] &= stage != Stage.KEEPS;
            } else if (stage == Stage.ADDS) {
                sum += values.getLong(row);
            } else {
                boolean isTrue = values.getBoolean(row);
                sum += isTrue ? 1 : 0;
                on[row] = isTrue || stage == Stage.SHOWS;
            }
        }
        return sum;
    }
}
