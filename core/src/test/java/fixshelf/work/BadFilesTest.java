package fixshelf.work;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.shelf.Shelf;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.stream.Stream;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.MethodSource;

/// No row of a strange file vanishes unseen: it is read exactly, or named with its line.
class BadFilesTest {
    @TempDir
    Path root;

    /// `rows` are the data rows of the output; `problem` is what stops the run without leave to leave rows out.
    record Case(String name, byte[] data, String options, String rows, long leftOut, Code problem) {
        static Case fine(String name, String data, String rows) {
            return new Case(name, bytes(data), "", rows, 0, null);
        }

        static Case bad(String name, String data, String rows, long leftOut, Code problem) {
            return new Case(name, bytes(data), "", rows, leftOut, problem);
        }

        Case reading(String more) {
            return new Case(name, data, more, rows, leftOut, problem);
        }
    }

    static byte[] bytes(String text) {
        return text.getBytes(StandardCharsets.UTF_8);
    }

    static Stream<Case> files() {
        return Stream.of(
                Case.fine("plain", "a,b\n1,2\n", "1,2"),
                Case.fine("a heading only", "a,b\n", ""),
                Case.fine("byte order mark", "\uFEFFa,b\n1,2\n", "1,2"),
                Case.fine("no end of the last line", "a,b\n1,2", "1,2"),
                Case.fine("mixed line ends", "a,b\r\n1,2\n3,4\r5,6\r\n", "1,2|3,4|5,6"),
                Case.fine("line break in quotes", "a,b\n\"x\ny\",2\n", "\"x¶y\",2"),
                Case.fine("doubled quotes", "a,b\n\"say \"\"hi\"\"\",2\n", "\"say \"\"hi\"\"\",2"),
                Case.fine("empty and missing differ", "a,b\n\"\",\n", "\"\","),
                Case.fine("missing words", "a,b\nn/a,\"n/a\"\n", ",n/a").reading("    null_words: [\"\", n/a]\n"),
                Case.fine("nothing is missing", "a,b\n,x\n", "\"\",x").reading("    null_words: []\n"),
                Case.fine("one null word, not the empty one", "a,b\n,-\n", "\"\",")
                        .reading("    null_words: [\"-\"]\n"),
                Case.fine("NUL bytes", "a,b\nx\0y,2\n", "x\0y,2"),
                Case.fine("no heading", "1,2\n3,4\n", "1,2|3,4").reading("    heading: false\n"),
                Case.fine("a field of 20 MB", "a,b\n" + "x".repeat(20_000_000) + ",2\n", "x".repeat(20_000_000) + ",2"),
                Case.bad("a row too short", "a,b\n1\n3,4\n", "3,4", 1, Code.BAD_ROWS),
                Case.bad("a row too long", "a,b\n1,2,3\n3,4\n", "3,4", 1, Code.BAD_ROWS),
                Case.bad("an unclosed quote", "a,b\n1,\"2\n3,4\n", "3,4", 1, Code.UNCLOSED_QUOTE),
                Case.bad("text after a quote", "a,b\n\"1\"x,2\n3,4\n", "3,4", 1, Code.UNCLOSED_QUOTE),
                new Case(
                        "Latin-1 read as UTF-8",
                        "a,b\ncafé,2\n3,4\n".getBytes(StandardCharsets.ISO_8859_1),
                        "",
                        "3,4",
                        1,
                        Code.BAD_ENCODING),
                new Case(
                        "Latin-1",
                        "a,b\ncafé,2\n".getBytes(StandardCharsets.ISO_8859_1),
                        "    encoding: latin-1\n",
                        "café,2",
                        0,
                        null),
                new Case(
                        "UTF-16",
                        "a,b\ncafé,2\n".getBytes(StandardCharsets.UTF_16),
                        "    encoding: utf-16\n",
                        "café,2",
                        0,
                        null));
    }

    @ParameterizedTest
    @MethodSource("files")
    void isReadExactlyOrNamed(Case c) throws Exception {
        String job = "job: job\nlines:\n  - read: data/in.csv\n" + c.options()
                + "%soutputs:\n  - write: out.csv\n    replace: true\n";
        Outcome<JobRun.Report> strict = Jobs.run(Jobs.shelf(root, c.data(), job.formatted("")));
        if (c.problem() != null) {
            assertThat(strict.problems()).singleElement().satisfies(p -> {
                assertThat(p.code()).isEqualTo(c.problem());
                assertThat(p.what()).contains("line 2");
                assertThat(p.todo()).isNotBlank();
            });
            assertThat(root.resolve("out.csv")).doesNotExist();
        }
        Outcome<JobRun.Report> lenient =
                Jobs.run(Jobs.shelf(root, c.data(), job.formatted("    bad_rows: leave_out\n")));
        assertThat(lenient.problems()).isEmpty();
        String written = Files.readString(root.resolve("out.csv"));
        String rows = written.substring(written.indexOf('\n') + 1).stripTrailing();
        String joined = rows.replace("x\ny", "x¶y").replace('\n', '|');
        assertThat(joined.equals(c.rows()))
                .as(joined.length() < 200 ? joined : "long")
                .isTrue();
        assertThat(lenient.get().effects().getFirst().rowsGone()).isEqualTo(c.leftOut());
        assertThat(root.resolve("data/in.csv")).hasBinaryContent(c.data());
    }

    @ParameterizedTest
    @MethodSource("missing")
    void aMissingOrEmptyFileIsNamed(String name, byte[] data, Code code) throws Exception {
        Shelf shelf = Jobs.shelf(root, data, "job: job\nlines:\n  - read: data/" + name + "\n");
        assertThat(Jobs.run(shelf).problems()).singleElement().satisfies(p -> {
            assertThat(p.code()).isEqualTo(code);
            assertThat(p.todo()).isNotBlank();
        });
    }

    static Stream<org.junit.jupiter.params.provider.Arguments> missing() {
        return Stream.of(
                org.junit.jupiter.params.provider.Arguments.of("other.csv", new byte[0], Code.FILE_MISSING),
                org.junit.jupiter.params.provider.Arguments.of("in.csv", new byte[0], Code.FILE_EMPTY));
    }
}
