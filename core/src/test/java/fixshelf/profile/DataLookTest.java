package fixshelf.profile;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.source.SourceFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

/// A whole table is looked at: its columns, its rows, and the rows that each thing that is odd leads to.
class DataLookTest {
    @TempDir
    Path folder;

    DataLook open(String text, long most) throws IOException {
        Path file = folder.resolve("in.csv");
        Files.writeString(file, text);
        return DataLook.open(SourceFile.open(file, ReadOptions.of("in.csv")).get(), most)
                .get();
    }

    @Test
    void whatIsOddAboutRowsLeadsToThem() throws IOException {
        StringBuilder text = new StringBuilder("visit_no,village,item\n");
        for (int i = 0; i < 40; i++) {
            text.append(String.format("AQ-%03d,Fennick,lamp%n", i == 7 ? 6 : i));
        }
        text.append(",,\nvisit_no,Village,\n,AQ-090,Fennick\n\" \",\t,\n");
        try (DataLook data = open(text.toString(), Long.MAX_VALUE)) {
            TableLook table = data.columns(List.of()).get();
            assertThat(table.findings().stream().map(Finding::sentence))
                    .containsExactly("2 are blank", "1 repeats the heading", "1 begins further right");
            assertThat(table.findings().stream().map(Finding::places))
                    .containsExactly(List.of(40L, 43L), List.of(41L), List.of(42L));
            assertThat(table.columns().getFirst().findings().stream().map(Finding::oddity))
                    .contains(Oddity.REPEATS);
            assertThat(data.rows(RowFilter.of(table.findings().get(1)), 0, 9)
                            .get()
                            .getFirst()
                            .cells())
                    .containsExactly("visit_no", "Village", null);
        }
    }

    /// As many repeats as there are, all of them lead to their rows.
    @Test
    void everyRowOfAGroupThatRepeatsIsLedTo() throws IOException {
        StringBuilder text = new StringBuilder("no,x\n");
        for (int i = 0; i < 9_000; i++) {
            text.append(i < 600 ? i / 2 : i).append(",1\n");
        }
        try (DataLook data = open(text.toString(), Long.MAX_VALUE)) {
            Finding repeats = data.columns(List.of())
                    .get()
                    .columns()
                    .getFirst()
                    .findings()
                    .getFirst();
            assertThat(repeats.sentence()).isEqualTo("300 repeat a value");
            assertThat(data.count(RowFilter.of(repeats)).get()).isEqualTo(600);
            assertThat(RowFilter.of(repeats).isPart()).isFalse();
        }
    }

    @Test
    void aSampleSaysThatItIsOne() throws IOException {
        String text = "n\n" + IntStream.range(0, 500).mapToObj(i -> i + "\n").collect(Collectors.joining());
        try (DataLook first = open(text, 200)) {
            assertThat(first.isWhole()).isFalse();
            assertThat(first.columns(List.of()).get().columns().getFirst().greatest())
                    .isEqualTo("199");
        }
        try (DataLook all = open(text, 500)) {
            assertThat(all.isWhole()).isTrue();
            ColumnLook column = all.columns(List.of()).get().columns().getFirst();
            assertThat(column.bins()).hasSize(Spread.BINS).allMatch(n -> n == 25);
            assertThat(column.filledByPlace()).hasSize(40);
            assertThat(column.filledByPlace().stream().mapToLong(n -> n).sum()).isEqualTo(500);
        }
    }

    @Test
    void whereAFileBrokeIsSeenByPlace() throws IOException {
        StringBuilder text = new StringBuilder("a,b\n");
        for (int i = 0; i < 400; i++) {
            text.append(i)
                    .append(',')
                    .append(i >= 200 && i < 300 ? "" : "x" + i)
                    .append('\n');
        }
        try (DataLook data = open(text.toString(), Long.MAX_VALUE)) {
            ColumnLook column = data.columns(List.of()).get().columns().get(1);
            List<Drawing.Bar> bars = Drawing.of(column, Drawing.Kind.FILLED).bars();
            assertThat(IntStream.range(0, 40).filter(i -> bars.get(i).marked()).boxed())
                    .containsExactlyElementsOf(IntStream.range(20, 30).boxed().toList());
        }
    }

    /// Wide tables are read many columns at once; the same is found.
    @Test
    void aWideTableIsLookedAtLikeANarrowOne() throws IOException {
        int width = 1_300;
        String line = IntStream.range(0, width).mapToObj(i -> "c" + i).collect(Collectors.joining(","));
        StringBuilder text = new StringBuilder(line + "\n");
        for (int r = 0; r < 30; r++) {
            int row = r;
            text.append(IntStream.range(0, width)
                            .mapToObj(i -> i == 700 ? " x" + row : i == 701 ? "" : String.valueOf(row * i))
                            .collect(Collectors.joining(",")))
                    .append('\n');
        }
        text.append(line).append('\n').append(",".repeat(width - 1)).append('\n');
        try (DataLook data = open(text.toString(), Long.MAX_VALUE)) {
            TableLook table = data.columns(List.of()).get();
            assertThat(table.findings().stream().map(Finding::sentence))
                    .containsExactly("1 is blank", "1 repeats the heading");
            assertThat(table.columns()).hasSize(width);
            assertThat(table.columns().get(700).findings().stream().map(Finding::sentence))
                    .contains("30 with blanks at an end");
            assertThat(data.count(RowFilter.ALL.withText("X17")).get()).isEqualTo(1);
            assertThat(data.count(RowFilter.ALL.withText("nowhere")).get()).isZero();
            assertThat(table.columns().get(701).filled()).isEqualTo(1);
            assertThat(table.columns().get(900).greatest()).isEqualTo("26100");
        }
    }

    @Test
    void codesThatAreNotOnAListAreNamedWithIt() throws IOException {
        KnownList outcomes = new KnownList("outcomes", "code", Set.of("M", "P", "B"));
        try (DataLook data = open("o\nM\nM\nM\nP\n P\nB\nB\nB\nX\n", Long.MAX_VALUE)) {
            TableLook table = data.columns(List.of(outcomes)).get();
            assertThat(table.columns().getFirst().findings().stream().map(Finding::sentence))
                    .contains("1 not on outcomes(code)");
        }
    }

    /// Whatever a table holds: the counts of a column add up to its rows, and what a finding leads
    /// to is as many rows as it says.
    @Test
    void countsAddUpAndFindingsLeadToTheirRows() throws IOException {
        String[] values = {
            "",
            "\"\"",
            "a",
            " a",
            "a  b",
            "\"a\nb\"",
            "?",
            "12",
            "\"12,345\"",
            "£5",
            "3 kg",
            "007",
            "2026-01-03",
            "3/1/2026",
            "31/02/2026",
            "TOTAL",
            "-----",
            "é",
            "Fennick",
            "fennick",
            "Fenick",
            "46025",
            "\"x,,y\"",
            "&amp;",
            "\u00A0",
            "a\u200Bb",
            "AQ-00417",
            "true"
        };
        Random random = new Random(7);
        for (int round = 0; round < 40; round++) {
            int width = 1 + random.nextInt(4);
            int rows = random.nextInt(120);
            List<List<String>> pools = new ArrayList<>();
            for (int c = 0; c < width; c++) {
                List<String> pool = new ArrayList<>();
                IntStream.range(0, 1 + random.nextInt(6)).forEach(_ -> pool.add(values[random.nextInt(values.length)]));
                pools.add(pool);
            }
            StringBuilder text = new StringBuilder(
                    IntStream.range(0, width).mapToObj(i -> "c" + i).collect(Collectors.joining(",")) + "\n");
            for (int r = 0; r < rows; r++) {
                text.append(pools.stream()
                                .map(p -> p.get(random.nextInt(p.size())))
                                .collect(Collectors.joining(",")))
                        .append('\n');
            }
            check(text.toString());
        }
    }

    private void check(String text) throws IOException {
        try (DataLook data = open(text, Long.MAX_VALUE)) {
            TableLook table = data.columns(List.of()).get();
            for (ColumnLook column : table.columns()) {
                assertThat(column.filled() + column.missing() + column.empty() + column.blank())
                        .as(text)
                        .isEqualTo(table.rows());
                assertThat(column.commonest().stream()
                                .mapToLong(ColumnLook.Common::rows)
                                .sum())
                        .isEqualTo(table.rows() - column.missing());
            }
            for (Finding finding : table.all()) {
                boolean repeats = finding.oddity() == Oddity.REPEATS;
                boolean led = !finding.values().isEmpty() || !finding.places().isEmpty();
                if (led && !repeats) {
                    assertThat(data.count(RowFilter.of(finding)).get())
                            .as(finding.sentence() + "\n" + text)
                            .isEqualTo(finding.rows());
                }
            }
        }
    }
}
