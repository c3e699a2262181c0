package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Operation;
import fixshelf.shelf.Shelf;
import fixshelf.type.ColumnNames;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/// Which columns are called otherwise after a line, with what they were called: of thousands too.
class NamesReportTest {
    @TempDir
    Path root;

    @ParameterizedTest
    @ValueSource(ints = {1, 10, 11, 64, 65, 1_001, 5_000})
    void hasEveryColumn(int columns) throws Exception {
        List<String> names =
                IntStream.rangeClosed(1, columns).mapToObj(i -> "Nr " + i).toList();
        List<List<String>> told = told(names, "name_columns: snake_case");
        assertThat(told).hasSize(columns);
        assertThat(told.getFirst()).containsExactly("Nr 1", "nr_1");
        assertThat(told.getLast()).containsExactly("Nr " + columns, "nr_" + columns);
    }

    @Test
    void hasOddNamesAsTheyStand() throws Exception {
        List<String> names = List.of("a", "É 😀", "\uE000 B", "  x", "it's; -- C");
        assertThat(told(names, "name_columns: lower"))
                .containsExactly(
                        List.of("É 😀", "é 😀"),
                        List.of("\uE000 B", "\uE000 b"),
                        List.of("  x", "x"),
                        List.of("it's; -- C", "it's; -- c"));
    }

    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                // A repeat never takes the name that another column has.
                "a,A!,a_2 ; a,a_3,a_2",
                "a_2,a,A! ; a_2,a,a_3",
                "% done,#,ShipTo,3rd ; percent_done,number,ship_to,_3rd"
            })
    void areNoOthers(String names, String now) throws Exception {
        List<String> was = List.of(names.strip().split(","));
        Map<String, String> told =
                told(was, "name_columns: snake_case").stream().collect(Collectors.toMap(List::getFirst, List::getLast));
        assertThat(was.stream().map(n -> told.getOrDefault(n, n)).collect(Collectors.joining(",")))
                .isEqualTo(now);
    }

    /// One rule for headings of files and for lines.
    @ParameterizedTest
    @CsvSource(
            delimiter = ';',
            value = {
                "a,A,a_2 ; a,A_3,a_2",
                "a_2,a,A ; a_2,a,A_3",
                "a,a,a,a_3 ; a,a_2,a_4,a_3",
                ",x,column_1 ; column_1_2,x,column_1",
                "x,,column_2,column_2_2 ; x,column_2_3,column_2,column_2_2"
            })
    void aNameThatIsThereIsKept(String wanted, String given) {
        assertThat(ColumnNames.distinct(List.of(wanted.strip().split(",", -1))))
                .containsExactly(given.strip().split(","));
    }

    private List<List<String>> told(List<String> names, String line) throws Exception {
        String heading = names.stream().map(n -> '"' + n + '"').collect(Collectors.joining(","));
        String row = names.stream().map(_ -> "1").collect(Collectors.joining(","));
        Shelf shelf = Jobs.shelf(
                root,
                heading + "\n" + row + "\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - " + line + "\n");
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        Operation.Report report = planned.report(2, "names").orElseThrow();
        try (Preview preview = Preview.open(planned.source()).get()) {
            return preview.rows(planned, report, 0, names.size()).get().stream()
                    .map(r -> r.cells().stream()
                            .map(c -> String.valueOf(c.value()))
                            .toList())
                    .toList();
        }
    }
}
