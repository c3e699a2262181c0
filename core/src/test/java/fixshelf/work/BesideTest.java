package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.shelf.Shelf;
import fixshelf.type.Column;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// B1: the tables of two lines beside each other, row by row of where they come from.
class BesideTest {
    @TempDir
    Path root;

    private static final String JOB = "job: job\nlines:\n"
            + "  - read: {file: data/in.csv}\n    name: begin\n" // 1
            + "  - read_as: {n: integer}\n" // 2
            + "  - keep_rows: n > 1\n" // 3
            + "  - set: [k]\n    to: upper(it)\n" // 4
            + "  - sort: [{n: descending}]\n" // 5
            + "  - add: {m: n + 1}\n" // 6
            + "  - rename: {k: key}\n" // 7
            + "  - group: [key]\n    measures: {all: sum(n)}\n" // 8
            + "  - go_on_from: begin\n" // 9
            + "  - set: [n]\n    to: it || '0'\n" // 10
            + "  - list_to_rows: k\n    separator: ','\n"; // 11

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "1|3|1 row is only at line 1; no cell that both have differs. |n·1 n·3 k: 1- 1 ∅ a; 2 2 2 b; 3 3 3 a,c; 4 4 4 b",
                "3|4|3 cells differ.|k·3 k·4 n: 2 b B* 2; 3 a,c A,C* 3; 4 b B* 4",
                "1|5|1 row is only at line 1; 3 cells differ.|k·1 k·5 n·1 n·5: 1- a ∅ 1 ∅; 2 b B* 2 2; 3 a,c A,C* 3 3; 4 b B* 4 4",
                "4|7|no cell that both have differs.|k·4 key·7 m·7 n: 2 B B 3 2; 3 A,C A,C 4 3; 4 B B 5 4",
                "7|8|no cell that both have differs.|n·7 m·7 all·8 key: 1 4 5 6 B; 2 3 4 3 A,C; 3 2 3 6 B",
                "4|10|1 row is only at line 10; 6 cells differ.|k·4 k·10 n·4 n·10: 2 B b* 2 20*; 3 A,C a,c* 3 30*; 4 B b* 4 40*; 1+ ∅ a ∅ 10",
                "10|11|2 cells differ.|k·10 k·11 n: 1 a a 10; 2 b b 20; 3 a,c a* 30; 3 a,c c* 30; 4 b b 40"
            })
    void standRowByRow(int line, int other, String sentence, String table) throws Exception {
        Shelf shelf = Jobs.shelf(root, "k,n\na,1\nb,2\n\"a,c\",3\nb,4\n", JOB + "outputs:\n  - write: out.csv\n");
        PlannedJob planned =
                PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of()).get();
        try (Preview preview = Preview.open(planned.source()).get()) {
            Beside beside = Beside.of(preview, planned, other, line).get();
            List<String> rows = new ArrayList<>();
            for (PreviewRow row : beside.rows(preview, 0, 100).get()) {
                String mark =
                        switch (row.mark()) {
                            case LEAVES -> "-";
                            case ONLY_LATER -> "+";
                            default -> "";
                        };
                rows.add(row.number() + mark + " "
                        + row.cells().stream()
                                .map(c -> (c.value() == null ? "∅" : c.value()) + (c.changed() ? "*" : ""))
                                .collect(Collectors.joining(" ")));
            }
            String names = beside.columns().stream()
                    .map(Beside.Shown::column)
                    .map(Column::name)
                    .map(n -> n.replace(" at ", "·"))
                    .collect(Collectors.joining(" "));
            assertThat(names + ": " + String.join("; ", rows)).isEqualTo(table.strip());
            assertThat(beside.sentence()).isEqualTo(sentence.strip());
        }
    }
}
