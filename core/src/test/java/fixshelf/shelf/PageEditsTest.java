package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.plan.Written;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// An edit changes its own lines and no other; what is written reads back as what was meant.
class PageEditsTest {
    @Property(tries = 300)
    void aReplacedJobLineReadsBackAndTouchesNoOther(
            @ForAll("lines") List<Line> lines, @ForAll("line") Line other, @ForAll int at) {
        JobPage page = job(lines);
        int index = 1 + Math.floorMod(at, lines.size());
        JobPage changed = reread(page, JobEdits.replaceLine(page, index, other));
        List<Line> expected = new ArrayList<>(lines);
        expected.set(index - 1, other);
        assertThat(changed.problems()).isEmpty();
        assertThat(changed.lines().stream().skip(1).map(JobPage.PlacedLine::line))
                .containsExactlyElementsOf(expected);
        assertThat(outside(changed, index)).isEqualTo(outside(page, index));
    }

    /// Pages as people write them by hand: in brackets, with a dash on its own, with comments, as blocks, in the
    /// older form.
    static Stream<String> pagesByHand() {
        return Stream.of(
                "job: j\nlines: [{read: a}, {drop: [x]}, {sort: y}]\n",
                "job: j\nlines: [ {read: a},\n  {drop: [x]}, # why\n  {sort: y} ]\noutputs: []\n",
                "job: j\nlines:\n- read: a\n-\n  drop: [x]\n# between\n-\n  sort: y\n",
                "job: j\nlines:\n  - read: a\n  # before\n  - drop: [x]   # behind\n    reason: r # and here\n  # after\n  - sort: y\n",
                "job: j\nlines:\n  - read: a\n  - drop:\n      - x\n      # inside\n      - z\n  - sort:\n      - y: descending\n",
                "job: j\nlines:\n  - read: a\n  - keep_rows: |-\n      x = 'a'\n      OR y > 'b'\n  - sort: y",
                "job: j\r\nlines:\r\n  - read: a\r\n  - drop: [x]\r\n  - sort: y\r\n",
                "job: j\nlines:\n  - dataset: a\n  - fix: tidy\n    columns: [x]\n    with: {n: upper(y)}\n  - tidy: {}\n");
    }

    @ParameterizedTest
    @MethodSource("pagesByHand")
    void aPageByHandStaysValidAndKeepsItsComments(String text) {
        JobPage page = JobPages.read(Path.of("job.yaml"), new SourceText("job", text));
        assertThat(page.problems()).isEmpty();
        assertThat(page.lines()).hasSize(3);
        Line other = Line.of("choose", "columns", Written.words(List.of("q,r", "s")));
        Line last = page.lines().get(2).line();
        Line resting = last.withRest(true);
        Map<String, List<Line>> edits = Map.of(
                JobEdits.replaceLine(page, 1, other), List.of(other, last),
                JobEdits.replaceLine(page, 2, resting),
                        List.of(page.lines().get(1).line(), resting),
                JobEdits.insertLine(page, 2, other), List.of(page.lines().get(1).line(), other, last),
                JobEdits.insertLine(page, 3, other), List.of(page.lines().get(1).line(), last, other),
                JobEdits.removeLine(page, 2), List.of(page.lines().get(1).line()),
                JobEdits.exchangeWithNext(page, 1),
                        List.of(last, page.lines().get(1).line()));
        edits.forEach((edited, lines) -> {
            JobPage read = reread(page, edited);
            assertThat(read.problems()).as(edited).isEmpty();
            assertThat(read.lines().stream().skip(1).map(JobPage.PlacedLine::line))
                    .as(edited)
                    .isEqualTo(lines);
        });
        for (String comment : List.of("# before", "# after", "# between", "# why")) {
            assertThat(JobEdits.replaceLine(page, 1, other).contains(comment)).isEqualTo(text.contains(comment));
        }
    }

    @Test
    void aBlankIsFilledWithoutTouchingTheCommentsOfItsLine() {
        String text = "job: j\nlines:\n  - read: a\n  - drop_repeats: [x]  # by number\n    # the later one\n"
                + "    keep: last\n  - tidy:\n      columns: [x]  # all\n      n: 5  # five\n";
        JobPage page = JobPages.read(Path.of("job.yaml"), new SourceText("job", text));
        Line keep = page.lines().get(1).line().with("keep", Optional.of(Written.word("first")));
        assertThat(JobEdits.replaceLine(page, 1, keep)).isEqualTo(text.replace("keep: last", "keep: first"));
        Line five = page.lines().get(2).line().with("n", Optional.of(Written.word("it's")));
        assertThat(JobEdits.replaceLine(page, 2, five)).isEqualTo(text.replace("n: 5", "n: \"it's\""));
    }

    @Property(tries = 200)
    void insertedThenRemovedIsAsBefore(@ForAll("lines") List<Line> lines, @ForAll("line") Line other, @ForAll int at) {
        JobPage page = job(lines);
        int index = 1 + Math.floorMod(at, lines.size());
        JobPage with = reread(page, JobEdits.insertLine(page, index, other));
        assertThat(with.lines()).hasSize(page.lines().size() + 1);
        assertThat(JobEdits.removeLine(with, index)).isEqualTo(page.source().text());
    }

    @Property(tries = 200)
    void partsOfAFixAreEditedApart(@ForAll("texts") String prose, @ForAll("texts") String cell) {
        FixPage page = FixPages.read(Path.of("a.fix.md"), new SourceText("a", FixEdits.newPage("tidy_up")));
        FixPage body = FixEdits.reread(page, FixEdits.setBody(page, "RETURN upper(text);"));
        assertThat(body.bodyText()).isEqualTo("RETURN upper(text);");
        FixPage words = FixEdits.reread(body, FixEdits.setProse(body, prose));
        assertThat(words.prose()).isEqualTo(prose.strip());
        assertThat(words.bodyText()).isEqualTo(body.bodyText());
        String literal = fixshelf.type.Literals.print(cell);
        FixPage cases = FixEdits.reread(words, FixEdits.addCase(words, List.of(literal, literal)));
        assertThat(cases.problems()).isEmpty();
        assertThat(cases.cases().getLast().expected().value()).isEqualTo(cell);
        assertThat(FixEdits.removeCase(cases, cases.cases().size() - 1))
                .isEqualTo(words.source().text());
    }

    @Test
    void fieldsAndParametersAreSaidAnew() {
        FixPage page = FixPages.read(Path.of("a.fix.md"), new SourceText("a", FixEdits.newPage("tidy_up")));
        String text = FixEdits.setParameters(
                page,
                List.of(
                        new FixEdits.ParameterText("text", "text", "", "It."),
                        new FixEdits.ParameterText("n", "integer", "3", "How often: always.")));
        FixPage changed = FixEdits.reread(page, FixEdits.setField(FixEdits.reread(page, text), "returns", "integer"));
        assertThat(changed.problems()).isEmpty();
        assertThat(changed.signature()).isEqualTo("tidy_up(text, n = 3) → integer");
        assertThat(changed.prose()).isEqualTo(page.prose());
    }

    @Test
    void undoSurvivesARestartAndACutOffJournal(@TempDir Path shelf) throws Exception {
        Path file = shelf.resolve("fixes/a.fix.md");
        History first = History.open(shelf, file, "one");
        first.record("two");
        first.record("three");
        first.undo();
        History again = History.open(shelf, file, "one");
        assertThat(again.current()).isEqualTo("two");
        assertThat(again.redo()).contains("three");
        Path journal = shelf.resolve(".fixshelf/history/fixes_a.fix.md.journal");
        byte[] bytes = Files.readAllBytes(journal);
        Files.write(journal, java.util.Arrays.copyOf(bytes, bytes.length - 2));
        assertThat(History.open(shelf, file, "one").current()).isIn("two", "three");
        assertThat(History.open(shelf, file, "from outside").current()).isEqualTo("from outside");
    }

    @Test
    void aPageThatCannotBeWrittenStaysAsItWas(@TempDir Path folder) throws Exception {
        Path file = folder.resolve("page.md");
        PageFiles.write(file, "old");
        Path link = Files.createSymbolicLink(folder.resolve("link.md"), file);
        assertThat(PageFiles.write(link, "new").problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("as it was"));
        assertThat(file).hasContent("old");
    }

    @Provide
    Arbitrary<String> texts() {
        return Arbitraries.strings()
                .withChars("ab |\\'\"-é\t😀{}:#,")
                .ofMinLength(1)
                .ofMaxLength(8)
                .filter(t -> t.codePoints().noneMatch(c -> c >= 0xD800 && c <= 0xDFFF))
                .filter(t -> !t.isBlank() && !t.strip().startsWith("#") && !t.contains("```"));
    }

    @Provide
    Arbitrary<List<Line>> lines() {
        return line().list().ofMinSize(1).ofMaxSize(6);
    }

    @Provide
    Arbitrary<Line> line() {
        Arbitrary<String> name = Arbitraries.strings()
                .withChars("ab :#'\"-{}[],é\t\\")
                .ofMinLength(1)
                .ofMaxLength(6)
                .filter(n -> !n.isBlank());
        Arbitrary<List<String>> names =
                name.list().uniqueElements().ofMinSize(1).ofMaxSize(3);
        Arbitrary<Map<String, String>> pairs =
                Arbitraries.maps(name, name).ofMinSize(1).ofMaxSize(2);
        return Arbitraries.oneOf(
                names.map(n -> Line.of("choose", "columns", Written.words(n))),
                pairs.map(p -> Line.of("rename", "names", Written.pairs(p))),
                name.map(n -> Line.of("keep_rows", "where", Written.word(n))),
                names.map(n -> Line.of("leave_out_blank_rows", "columns", Written.words(n))
                        .withRest(true)),
                Combinators.combine(names, names, Arbitraries.of("first", "last"))
                        .as((k, o, keep) -> Line.of("drop_repeats", "keys", Written.words(k))
                                .with("keep", Optional.of(Written.word(keep)))
                                .with("by", Optional.of(Written.words(o)))),
                Combinators.combine(names, pairs).as((n, p) -> Line.of("fix_of_ours", "columns", Written.words(n))
                        .with("pairs", Optional.of(Written.pairs(p)))),
                names.map(n -> Line.of("fix_of_ours", "columns", Written.field("all_but", Written.words(n)))
                        .withStrict(true)));
    }

    private static JobPage job(List<Line> lines) {
        String text = "# a remark\n" + JobEdits.newPage("job", "A job: ours", ReadOptions.of("a.csv"));
        JobPage page = JobPages.read(Path.of("job.yaml"), new SourceText("job", text));
        for (int i = 0; i < lines.size(); i++) {
            page = reread(page, JobEdits.insertLine(page, i + 1, lines.get(i)));
        }
        return page;
    }

    private static JobPage reread(JobPage page, String text) {
        return JobPages.read(page.file(), new SourceText("job", text));
    }

    private static String outside(JobPage page, int index) {
        Span span = page.lines().get(index).span();
        return page.source().text().substring(0, span.start()) + "…"
                + page.source().text().substring(span.end());
    }
}
