package fixshelf.engine;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.ArrayList;
import java.util.List;
import java.util.function.Supplier;
import org.jspecify.annotations.Nullable;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

/// Rows that are added on a second thread come whole and in order, and its failure is told once.
class QueuedRowsTest {
    @ParameterizedTest
    @ValueSource(ints = {0, 1, 499, 500, 501, 12_345})
    void rowsComeInOrder(int count) {
        List<List<@Nullable String>> got = new ArrayList<>();
        try (RowSink<String> rows = new QueuedRows<>(() -> into(got, Integer.MAX_VALUE))) {
            for (int i = 0; i < count; i++) {
                rows.add(List.of("row " + i));
            }
        }
        assertThat(got).hasSize(count + 1);
        assertThat(got.getLast()).containsExactly("closed");
        for (int i = 0; i < count; i++) {
            assertThat(got.get(i)).containsExactly("row " + i);
        }
    }

    @ParameterizedTest
    @ValueSource(ints = {-1, 0, 3, 700, 12_344})
    void aFailureIsToldOnce(int failing) {
        Supplier<RowSink<String>> opened = () -> {
            if (failing < 0) {
                throw new IllegalStateException("row " + failing);
            }
            return into(new ArrayList<>(), failing);
        };
        assertThatThrownBy(() -> {
                    try (RowSink<String> rows = new QueuedRows<>(opened)) {
                        for (int i = 0; i < 12_345; i++) {
                            rows.add(List.of("x".repeat(i % 5 == 0 ? 5_000 : 1)));
                        }
                    }
                })
                .isInstanceOf(IllegalStateException.class)
                .hasMessage("row " + failing)
                .hasNoSuppressedExceptions();
    }

    /// Also one that no program expects; nobody waits for ever.
    @Test
    void anErrorIsTold() {
        Error broken = new OutOfMemoryError("no room");
        assertThatThrownBy(() -> {
                    try (RowSink<String> rows = new QueuedRows<>(() -> {
                        throw broken;
                    })) {
                        for (int i = 0; i < 12_345; i++) {
                            rows.add(List.of("x"));
                        }
                    }
                })
                .isSameAs(broken);
    }

    private static RowSink<String> into(List<List<@Nullable String>> got, int failing) {
        return new RowSink<String>() {
            @Override
            public void add(List<@Nullable String> row) {
                if (got.size() == failing) {
                    throw new IllegalStateException("row " + failing);
                }
                got.add(row);
            }

            @Override
            public void close() {
                got.add(List.of("closed"));
            }
        };
    }
}
