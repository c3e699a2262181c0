package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.language.tree.Definition;
import fixshelf.language.tree.Expr;
import fixshelf.problem.Span;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.ShelfReader;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// What a fix and a pattern do to the user's own rows: each value once, with how often it comes.
class EvidenceTest {
    private static final String ROWS = """
            n,item
            1, kettle
            2, kettle
            3,lamp
            4,lamp
            5,lamp
            6,-
            7,
            8,7 kg
            9, -
            """;

    private static final String FIX = """
            ---
            fix: cleaned
            parameters:
              value: {type: text}
              gone: {type: text, default: "'-'"}
            returns: text
            ---
            # Cleaned

            ```sql
            SET bare = trim(value);
            SET named = CASE WHEN bare = gone THEN NULL ELSE bare END;
            RETURN upper(named);
            ```
            """;

    @TempDir
    Path root;

    private Shelf shelf() throws Exception {
        Jobs.shelf(root, ROWS, "job: job\nlines:\n  - read: data/in.csv\n");
        Files.writeString(root.resolve("fixes/cleaned.fix.md"), FIX);
        return ShelfReader.read(root).get();
    }

    private static Preview preview(Shelf shelf) {
        return Preview.open(PlannedJob.plan(shelf, shelf.job("job").orElseThrow(), Map.of())
                        .get()
                        .source())
                .get();
    }

    @Test
    void everyValueIsFollowedThroughTheSteps() throws Exception {
        Shelf shelf = shelf();
        Definition fix = shelf.definition(shelf.fix("cleaned").orElseThrow()).get();
        try (Preview preview = preview(shelf)) {
            Evidence seen = Evidence.look(preview, "item", fix, List.of(Expr.Literal.text("-")))
                    .get();
            assertThat(seen.names()).containsExactly("value", "bare", "named", "result");
            assertThat(seen.values()).as("rows that hold a value").isEqualTo(8);
            assertThat(seen.changed()).isEqualTo(8);
            assertThat(seen.lost()).isEqualTo(2);
            assertThat(seen.samples().stream().map(s -> s.rows() + " " + s.values()))
                    .as("what changes first, the commonest first, the missing last")
                    .containsExactly(
                            "3 [lamp, lamp, lamp, LAMP]",
                            "2 [ kettle, kettle, kettle, KETTLE]",
                            "1 [ -, -, null, null]",
                            "1 [-, -, null, null]",
                            "1 [7 kg, 7 kg, 7 kg, 7 KG]",
                            "1 [null, null, null, null]");
            assertThat(seen.samples().getLast().changed()).isFalse();
            // Another argument, another answer; the column may be called in any case.
            Evidence kept = Evidence.look(preview, "ITEM", fix, List.of(Expr.Literal.text("lamp")))
                    .get();
            assertThat(kept.lost()).isEqualTo(3);
        }
    }

    @ParameterizedTest
    @CsvSource({
        "'[0-9]+ kg', 1, 1, '[7 kg: 7 kg]'",
        "'^ (.+)', 2, 3, '[ kettle: kettle,  -: -]'",
        "'(?i)LAMP', 1, 3, '[lamp: lamp]'",
        "'t', 1, 2, '[ kettle: t]'",
        "'x(y)?', 0, 0, '[]'"
    })
    void aPatternIsMarkedInTheRowsAndWhatItLooksForIsFound(String pattern, int hits, int rows, String found)
            throws Exception {
        try (Preview preview = preview(shelf())) {
            Matches matches = Matches.look(preview, "item", pattern).get();
            assertThat(matches.rows()).isEqualTo(8);
            assertThat(matches.matching()).isEqualTo(rows);
            List<Matches.Sample> first = matches.samples().subList(0, hits);
            assertThat(first.stream().map(s -> s.value() + ": " + s.found().orElse("?")))
                    .hasToString(found);
            assertThat(first).allSatisfy(s -> assertThat(s.matches())
                    .allSatisfy(m ->
                            assertThat(s.value().substring(m.start(), m.end())).isNotEmpty()));
            assertThat(matches.samples().stream().skip(hits))
                    .allSatisfy(s -> assertThat(s.matches()).isEmpty());
        }
    }

    @Test
    void allMatchesOfAValueAreMarked() throws Exception {
        try (Preview preview = preview(shelf())) {
            Matches.Sample kettle = Matches.look(preview, "item", "[te]").get().samples().stream()
                    .filter(s -> s.value().equals(" kettle"))
                    .findFirst()
                    .orElseThrow();
            assertThat(kettle.matches())
                    .containsExactly(new Span(2, 3), new Span(3, 4), new Span(4, 5), new Span(6, 7));
            assertThat(Matches.look(preview, "item", "a**").problems()).singleElement();
        }
    }

    /// A run that was cut off while its line was written hides none of the others.
    @Test
    void theLogOfRunsTellsTheLastOneAlsoBehindABrokenLine() throws Exception {
        Path log = root.resolve(".fixshelf/runs.jsonl");
        Files.createDirectories(log.getParent());
        Files.write(
                log,
                Arrays.asList(
                        "{\"job\":\"a\",\"at\":\"2026-02-07T10:00:00Z\"}",
                        "{\"job\":\"b\",\"at\":\"2026-02-08T10:00:00Z\"}",
                        "{\"job\":\"a\",\"at\":\"2026-02-09T10:00:00Z\"}",
                        "{\"job\":\"a\",\"at"));
        assertThat(RunLog.lastRun(root, "a")).hasToString("Optional[2026-02-09T10:00:00Z]");
        assertThat(RunLog.lastRun(root, "b")).hasToString("Optional[2026-02-08T10:00:00Z]");
        assertThat(RunLog.lastRun(root, "c")).isEqualTo(Optional.empty());
    }
}
