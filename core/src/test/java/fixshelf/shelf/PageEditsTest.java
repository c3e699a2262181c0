package fixshelf.shelf;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.Columns;
import fixshelf.plan.Line;
import fixshelf.plan.ReadOptions;
import fixshelf.problem.SourceText;
import fixshelf.problem.Span;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import net.jqwik.api.Arbitraries;
import net.jqwik.api.Arbitrary;
import net.jqwik.api.Combinators;
import net.jqwik.api.ForAll;
import net.jqwik.api.Property;
import net.jqwik.api.Provide;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;

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
                names.map(Line.Choose::new),
                names.map(Line.Drop::new),
                pairs.map(Line.Rename::new),
                Combinators.combine(names, names, Arbitraries.of(Line.Keep.values()))
                        .as((k, o, keep) -> new Line.DropRepeats(k, keep, o)),
                Combinators.combine(names, pairs).as((n, p) -> new Line.Apply("fix", new Columns.Named(n), p)),
                names.map(n -> new Line.Apply("fix", new Columns.AllBut(n), Map.of()).withLost(Line.Lost.STOPS)),
                Arbitraries.just(new Line.Apply("fix", new Columns.EveryText(), Map.of())));
    }

    private static JobPage job(List<Line> lines) {
        String text = "# a remark\n" + JobEdits.newPage("job", "A job: ours", ReadOptions.of("a.csv"));
        JobPage page = JobPages.read(Path.of("job.yaml"), new SourceText("job", text), List.of(""));
        for (int i = 0; i < lines.size(); i++) {
            page = reread(page, JobEdits.insertLine(page, i + 1, lines.get(i)));
        }
        return page;
    }

    private static JobPage reread(JobPage page, String text) {
        return JobPages.read(page.file(), new SourceText("job", text), List.of(""));
    }

    private static String outside(JobPage page, int index) {
        Span span = page.lines().get(index).span();
        return page.source().text().substring(0, span.start()) + "…"
                + page.source().text().substring(span.end());
    }
}
