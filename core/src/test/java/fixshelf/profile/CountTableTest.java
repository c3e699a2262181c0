package fixshelf.profile;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.source.SourceFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// Counts of one, two and three columns, with per cents of every base, rounding, totals, labels.
class CountTableTest {
    private static final String ROWS = "v,o,r\na,M,x\na,M,y\na,P,x\nb,M,x\nb,,y\n,P,x\n\"\",M,y\n";

    @TempDir
    Path folder;

    private CountTable count(String text, CountSpec spec) throws IOException {
        Path file = folder.resolve("in.csv");
        Files.writeString(file, text);
        try (DataLook data = DataLook.open(
                        SourceFile.open(file, ReadOptions.of("in.csv")).get(), Long.MAX_VALUE)
                .get()) {
            return Counts.of(data, spec).get();
        }
    }

    private static String lines(List<List<String>> lines) {
        return lines.stream().map(l -> String.join(" | ", l)).collect(Collectors.joining("\n"));
    }

    record Case(String name, String rows, CountSpec spec, String shown) {
        @Override
        public String toString() {
            return name;
        }
    }

    static Stream<Case> cases() {
        CountSpec two = CountSpec.of(List.of(0, 1));
        return Stream.of(
                new Case(
                        "one column: missing has a line of its own, and a per cent of what is there",
                        "v\na\na\nb\n\n"
                                .replace("\n\n", "\n,\n")
                                .replace("v\n", "v,w\n")
                                .replace("a\n", "a,\n")
                                .replace("b\n", "b,\n"),
                        CountSpec.of(List.of(0)),
                        """
                        v | rows | per cent | of what is there
                        a | 2 | 50.0% | 66.7%
                        b | 1 | 25.0% | 33.3%
                        missing | 1 | 25.0% |\s
                        all | 4 | 100.0% | 100.0%"""),
                new Case(
                        "two columns: what never comes together is 0, empty is not missing",
                        ROWS,
                        two.withShow(CountSpec.Show.COUNT),
                        """
                        v | M | P | missing | all
                        '' | 1 | 0 | 0 | 1
                        a | 2 | 1 | 0 | 3
                        b | 1 | 0 | 1 | 2
                        missing | 0 | 1 | 0 | 1
                        all | 4 | 2 | 1 | 7"""),
                new Case("of the row, per cent first", ROWS, two.withTotals(CountSpec.Totals.ROWS), """
                        v | M | P | missing | all
                        '' | 100.0% (1) | 0.0% (0) | 0.0% (0) | 100.0% (1)
                        a | 66.7% (2) | 33.3% (1) | 0.0% (0) | 100.0% (3)
                        b | 50.0% (1) | 0.0% (0) | 50.0% (1) | 100.0% (2)
                        missing | 0.0% (0) | 100.0% (1) | 0.0% (0) | 100.0% (1)"""),
                new Case(
                        "of the column, count first",
                        ROWS,
                        two.withBase(CountSpec.Base.COLUMN)
                                .withShow(CountSpec.Show.COUNT_PERCENT)
                                .withTotals(CountSpec.Totals.COLUMNS)
                                .withDecimals(0),
                        """
                        v | M | P | missing
                        '' | 1 (25%) | 0 (0%) | 0 (0%)
                        a | 2 (50%) | 1 (50%) | 0 (0%)
                        b | 1 (25%) | 0 (0%) | 1 (100%)
                        missing | 0 (0%) | 1 (50%) | 0 (0%)
                        all | 4 (100%) | 2 (100%) | 1 (100%)"""),
                new Case(
                        "of all rows, no totals",
                        ROWS,
                        two.withBase(CountSpec.Base.ALL)
                                .withShow(CountSpec.Show.PERCENT)
                                .withTotals(CountSpec.Totals.NONE),
                        """
                        v | M | P | missing
                        '' | 14.3% | 0.0% | 0.0%
                        a | 28.6% | 14.3% | 0.0%
                        b | 14.3% | 0.0% | 14.3%
                        missing | 0.0% | 14.3% | 0.0%"""),
                new Case(
                        "halves away from zero",
                        "v\na\nb\nb\nb\nb\nb\nb\nb\n",
                        CountSpec.of(List.of(0)).withDecimals(0).withTotals(CountSpec.Totals.NONE),
                        "v | rows | per cent | of what is there\nb | 7 | 88% | 88%\na | 1 | 13% | 13%"),
                new Case(
                        "halves to the even digit",
                        "v\na\nb\nb\nb\nb\nb\nb\nb\n",
                        CountSpec.of(List.of(0))
                                .withDecimals(0)
                                .withHalves(CountSpec.Halves.EVEN)
                                .withTotals(CountSpec.Totals.NONE),
                        "v | rows | per cent | of what is there\nb | 7 | 88% | 88%\na | 1 | 12% | 12%"),
                new Case(
                        "labels stand for values",
                        "v\nM\nM\nP\n",
                        CountSpec.of(List.of(0)).withLabels(Map.of(0, Map.of("M", "mended"))),
                        """
                        v | rows | per cent | of what is there
                        mended | 2 | 66.7% | 66.7%
                        P | 1 | 33.3% | 33.3%
                        all | 3 | 100.0% | 100.0%"""),
                new Case(
                        "a value called as a line of its own is told apart",
                        "v\nmissing\nall\n",
                        CountSpec.of(List.of(0)).withTotals(CountSpec.Totals.NONE),
                        "v | rows | per cent | of what is there\n'all' | 1 | 50.0% | 50.0%\n'missing' | 1 | 50.0% | 50.0%"));
    }

    @ParameterizedTest
    @MethodSource("cases")
    void tablesAreShown(Case given) throws IOException {
        CountTable table = count(given.rows(), given.spec());
        assertThat(lines(table.shown(table.sheets().getFirst()))).isEqualTo(given.shown());
    }

    @Test
    void aThirdColumnGivesATableForEachOfItsValues() throws IOException {
        CountTable table = count(ROWS, CountSpec.of(List.of(0, 1, 2)).withShow(CountSpec.Show.COUNT));
        assertThat(table.title()).isEqualTo("o by v, apart for each r");
        assertThat(table.sheets().stream().map(s -> s.of().orElseThrow() + " " + s.all()))
                .containsExactly("r: x 4", "r: y 3");
        assertThat(table.numbers(table.sheets().get(1)).getLast()).containsExactly("all", "2", "0", "1", "3");
    }

    @Test
    void whatDoesNotAddUpIsSaid() throws IOException {
        CountTable table = count("v,o\n1,a\n1,b\n1,c\n2,a\n", CountSpec.of(List.of(0, 1)));
        assertThat(table.notes(table.sheets().getFirst()))
                .containsExactly("Each per cent is rounded by itself.", "1 adds up to 99.9.");
    }

    @Test
    void tooManyValuesForAHeadAreAProblemAndAListOfThemIsNot() throws IOException {
        String text = "v,o\n"
                + Stream.iterate(1, i -> i + 1)
                        .limit(2_300)
                        .map(i -> "x" + i + ",1\n")
                        .collect(Collectors.joining());
        Path file = folder.resolve("in.csv");
        Files.writeString(file, text);
        try (DataLook data = DataLook.open(
                        SourceFile.open(file, ReadOptions.of("in.csv")).get(), Long.MAX_VALUE)
                .get()) {
            assertThat(Counts.of(data, CountSpec.of(List.of(1, 0)))
                            .problems()
                            .getFirst()
                            .sentence())
                    .contains("v has 2300 values");
            CountTable one = Counts.of(data, CountSpec.of(List.of(0))).get();
            assertThat(one.shown(one.sheets().getFirst())).hasSize(2_003);
            assertThat(one.shown(one.sheets().getFirst()).get(2_001)).startsWith("and 300 other values", "300");
        }
    }
}
