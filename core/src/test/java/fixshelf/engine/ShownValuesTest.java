package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.type.Literals;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;

/// A value is shown as the engine writes it into a file of text; so the grid and the counts agree on what is changed.
class ShownValuesTest {
    private static final List<String> EDGES = List.of(
            "0.1::DOUBLE",
            "1e-7::DOUBLE",
            "0.0001::DOUBLE",
            "0.00001234::DOUBLE",
            "1e15::DOUBLE",
            "1e16::DOUBLE",
            "123456789012345678::DOUBLE",
            "-1e22::DOUBLE",
            "1e300::DOUBLE",
            "100::DOUBLE",
            "0::DOUBLE",
            "0.00000001::DECIMAL(18,8)",
            "-5::DECIMAL(38,10)",
            "7::BIGINT",
            "TRUE",
            "DATE '0001-02-03'",
            "TIMESTAMP '2026-02-07 10:12:00'",
            "TIMESTAMP '0001-01-01 00:00:00.000001'",
            "TIMESTAMP '2026-02-07 10:12:00.250'",
            "' a '");

    @Test
    void areAsTheyAreWritten() {
        List<String> values = new ArrayList<>(EDGES);
        Random random = new Random(20260207);
        for (int i = 0; i < 2_000; i++) {
            double size = Math.pow(10, random.nextInt(60) - 30);
            values.add((random.nextInt(3) == 0 ? random.nextInt(1_000) : random.nextGaussian()) * size + "::DOUBLE");
            values.add("epoch_ms(0) + to_microseconds(" + random.nextLong(-1L << 50, 1L << 50) + ")");
        }
        String query = values.stream()
                .map(v -> v + ", CAST(" + v + " AS VARCHAR)")
                .collect(Collectors.joining(", ", "SELECT ", ""));
        try (DuckSession session = DuckSession.open()) {
            List<@Nullable Object> row = session.query(query).rows().getFirst();
            for (int i = 0; i < values.size(); i++) {
                Object value = row.get(2 * i);
                assertThat(value == null ? null : Literals.bare(value))
                        .as(values.get(i))
                        .isEqualTo(row.get(2 * i + 1));
            }
        }
    }
}
