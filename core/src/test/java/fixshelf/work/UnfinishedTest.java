package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.check.Bounds;
import fixshelf.engine.Answer;
import fixshelf.engine.FixEngine;
import fixshelf.engine.FixEngines;
import fixshelf.language.emulation.Unfinished;
import fixshelf.language.tree.Body;
import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.type.Type;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// A replacement that reaches its bound is told apart from what is missing for another cause.
class UnfinishedTest {
    private static final String GROWS = """
            ---
            fix: grows
            kind: value
            parameters:
              text: {type: text}
              most: {type: integer, default: 3}
            returns: text
            ---
            # Grows

            Puts an x where an x was.

            ```sql
            SET bare = nullif(trim(text), '');
            RETURN replace_until_same(bare, 'x', 'xx', most);
            ```
            """;

    @TempDir
    Path root;

    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            quoteCharacter = '"',
            value = {
                "grows: [n]                                                     | x;b;;bx   | x;bx",
                "add: {m: grows(n)}                                             | x;b;;bx   | x;bx",
                "set: [n]@to: CASE WHEN it = 'x' THEN 'x' ELSE grows(it) END    | x;b;;bx   | bx",
                "set: [n]@to: coalesce(grows(it), 'end')                        | x;b;;bx   |",
                "set: [n]@to: replace_until_same(it, '--', '-', 2)              | a--b;-----;--;n | -----",
                "set: [n]@to: upper(it)                                         | x;b       |",
            })
    void rowsInWhichItHappensAreReported(String line, String values, String reported) throws Exception {
        Files.createDirectories(root.resolve("fixes"));
        Files.writeString(root.resolve("fixes/grows.fix.md"), GROWS);
        Shelf shelf = Jobs.shelf(
                root,
                "n,k\n" + values.strip().replace(";", ",1\n") + ",1\n",
                "job: job\nlines:\n  - read: {file: data/in.csv}\n  - "
                        + line.strip().replace("@", "\n    ") + "\noutputs:\n  - write: out.csv\n");
        assertThat(Jobs.reported(shelf, "unfinished"))
                .extracting(r -> String.valueOf(r.getFirst()))
                .containsExactly(
                        reported == null ? new String[0] : reported.strip().split(";"));
    }

    @ParameterizedTest
    @CsvSource({"x, 3, true", "b, 3, false", "' ', 3, false", "ax, 1, true", ", 3, false"})
    void aCallThatReachesItsBoundIsAProblem(String text, long most, boolean problem) throws Exception {
        Files.createDirectories(root.resolve("fixes"));
        Files.writeString(root.resolve("fixes/grows.fix.md"), GROWS);
        Shelf shelf = Jobs.shelf(root, "n\n1\n", "job: job\nlines:\n  - read: {file: data/in.csv}\n");
        Definition fix = shelf.definition(shelf.fix("grows").orElseThrow()).get();
        List<Expr.Literal> row = List.of(
                text == null ? new Expr.Literal(null, Type.TEXT) : Expr.Literal.text(text), Expr.Literal.integer(most));
        for (FixEngine engine : FixEngines.ALL.stream()
                .filter(e -> List.of("duckdb", "sqlite").contains(e.language().id()))
                .toList()) {
            Answer answer = engine.run(List.of(new Answer.Evaluation(fix, List.of(row))))
                    .getFirst()
                    .getFirst();
            Optional<Problem> reached = Bounds.reached(engine, fix, row, answer);
            assertThat(reached.map(Problem::what))
                    .isEqualTo(
                            problem
                                    ? Optional.of(
                                            "The text still changed after " + (most == 1 ? "one time" : most + " times")
                                                    + ", so that there is no end to tell.")
                                    : Optional.empty());
        }
    }

    /// Fixes that each call the one before twice are looked into once each.
    @Test
    void fixesThatCallOneAnotherAreLookedIntoOnce() {
        Definition fix = new Definition("f0", List.of(), Type.TEXT, new Body(List.of(), Expr.Literal.text("x")));
        for (int i = 1; i < 60; i++) {
            Expr call = new Expr.FixCall(fix, List.of());
            fix = new Definition(
                    "f" + i,
                    List.of(),
                    Type.TEXT,
                    new Body(List.of(new Body.Assignment("a", call)), new Expr.FixCall(fix, List.of())));
        }
        assertThat(Unfinished.of(new Expr.FixCall(fix, List.of()))).isEmpty();
    }
}
