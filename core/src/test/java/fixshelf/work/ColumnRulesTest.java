package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.type.Column;
import java.nio.file.Path;
import java.util.Map;
import java.util.stream.Collectors;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Which columns a line is about, where they are chosen by what they are, and where some of them are not there.
class ColumnRulesTest {
    @TempDir
    Path root;

    /// The table has the columns a and b of text, n and m of whole numbers, d of days. Of `choose` all columns that
    /// come out are told, of other lines those that get values.
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '`',
            value = {
                "choose: every text column | a, b",
                "choose: every column | a, b, n, m, d",
                "choose: all columns | a, b, n, m, d",
                "choose: {every: integer} | n, m",
                "choose: {every: true} | a, b, n, m, d",
                "choose: {all_but: [b, M]} | a, n, d",
                "choose: {every: integer, all_but: [m]} | n",
                "choose: {like: '?', all_but: [a]} | None of these columns is there.",
                "choose: {like: '*'} | a, b, n, m, d",
                "choose: {like: 'N*'} | n",
                "choose: [d, a, a] | d, a",
                "choose: [d, x] | There is no column x at this line.",
                "choose: [d, x]/if_absent: pass_over | d",
                "choose: [y, x]/if_absent: pass_over | None of these columns is there.",
                "choose: {every: colour} | There is no type colour.",
                "drop: [x, a, D]/if_absent: pass_over | b, n, m",
                "drop: [x]/if_absent: pass_over | a, b, n, m, d",
                "drop: [x] | There is no column x at this line.",
                "rename: {a: k, x: y} | There is no column x at this line.",
                "rename: {a: k, x: y}/if_absent: pass_over | k, b, n, m, d",
                // A fix of one text.
                "tidy: every text column | = a, b",
                "tidy: every column | = a, b",
                "tidy: {all_but: [a]} | = b",
                "tidy: {like: '*'} | = a, b",
                "tidy: [a, n] | tidy takes text, and n is integer.",
                "tidy: {every: integer} | tidy takes text, and n is integer.; tidy takes text, and m is integer.",
                "tidy: [a, x] | There is no column x at this line.",
                "tidy: [a, x]/if_absent: pass_over | = a",
                "tidy: [x]/if_absent: pass_over | =",
                "tidy: x/if_absent: pass_over | =",
                "set: {every: integer, all_but: [m]}/to: it + 1 | = n",
                "set: [n, x]/to: it + 1/if_absent: pass_over | = n",
                "fill_missing: [n, x]/with: 7/if_absent: pass_over | = n",
                "make_missing: [n, m]/values: [1, 2] | = n, m",
                "make_missing: [n, d]/values: [1] | n is integer, and d is date, so that it would be of two types.",
                "make_missing: [n]/values: [one] | one is no integer, as n is.",
                "make_missing: [n] | make_missing needs where or values.",
                // Keys are never passed over.
                "carry: down/columns: [a, x]/if_absent: pass_over | = a",
                "carry: down/columns: [a]/within: [x]/if_absent: pass_over | within: There is no column x at this line.",
                "fill_with_mean: [n]/within: [x]/if_absent: pass_over | within: There is no column x at this line.",
                "drop_repeats: [x]/keep: first/if_absent: pass_over | drop_repeats has no argument if_absent to give here.; "
                        + "There is no column x at this line."
            })
    void chooseColumns(String line, String expected) throws Exception {
        Shelf shelf = Jobs.shelf(
                root,
                "a,b,n,m,d\n x , y ,1,2,2026-02-07\n",
                "job: job\nlines:\n  - read: data/in.csv\n  - read_as: {n: integer, m: integer, d: date}\n  - "
                        + line.replace("/", "\n    ") + "\n");
        Outcome<PlannedJob> planned = PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of());
        assertThat(told(planned, expected == null ? "" : expected)).isEqualTo(expected);
    }

    private static String told(Outcome<PlannedJob> planned, String expected) {
        if (!planned.isPresent()) {
            return planned.problems().stream().map(Problem::what).collect(Collectors.joining("; "));
        }
        var step = planned.get().plan().steps().getLast();
        return expected.startsWith("=")
                ? ("= " + step.replaced().stream().map(f -> f.name()).collect(Collectors.joining(", "))).strip()
                : step.columns().stream().map(Column::name).collect(Collectors.joining(", "));
    }
}
