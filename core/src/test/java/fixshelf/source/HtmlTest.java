package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import java.io.IOException;
import java.nio.charset.Charset;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Tables of pages of the web that were saved as files.
class HtmlTest {
    @TempDir
    Path folder;

    private static final String TWO = "<h2>Open</h2><table><tr><th>day<td>from<tr><td>Monday<td>8</table>"
            + "<table><caption>Costs of May</caption><tr><th>part</th></tr><tr><td>hinge</td></tr></table>";

    private Path saved(String page, Charset charset) throws IOException {
        return Files.write(folder.resolve("page.html"), page.getBytes(charset));
    }

    private static String read(Path file, ReadOptions options) throws IOException {
        try (Records records = SourceFile.records(file, options)) {
            StringBuilder all = new StringBuilder(String.join("|", records.names()));
            for (Optional<Records.Row> row = records.next(); row.isPresent(); row = records.next()) {
                all.append(" / ")
                        .append(row.get().line())
                        .append(": ")
                        .append(row.get().cells().stream()
                                .map(c -> c == null ? "∅" : c.replace("\n", "¶"))
                                .collect(Collectors.joining("|")));
            }
            return all.toString();
        }
    }

    /// What a reader sees is what is read: entities, cells that reach over others, line breaks, blanks.
    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
            <table><tr><th>a<th>b<tr><td>1<td>2</table>                                     ; true  ; a|b / 2: 1|2
            <table><tr><th>a<th>b<tr><td>1<td>2</table>                                     ; false ; | / 1: a|b / 2: 1|2
            <table><tr><th>a<th>b<tr><td rowspan=2>x<td>1<tr><td>2</table>                  ; true  ; a|b / 2: x|1 / 3: x|2
            <table><tr><th colspan=2>a<th>b<tr><td>1<td>2<td>3</table>                      ; true  ; a|a|b / 2: 1|2|3
            <table><tr><th>a<tr><td>1<td>2<tr></table>                                      ; true  ; a| / 2: 1|2 / 3: ∅|∅
            <table><tr><th>a<tr><td>x &amp, y<br>  z  <tr><td>  </table>                    ; true  ; a / 2: x &, y¶z / 3: ∅
            <table><tr><th>a<tr><td>n/a<tr><td>0071</table>                                 ; true  ; a / 2: ∅ / 3: 0071
            <table><tr><td><table><tr><th>in<tr><td>1</table></table>                       ; true  ; in / 2: 1
            <table><thead><tr><th>a<tbody><tr><td>1<tfoot><tr><td>2</table>                 ; true  ; a / 2: 1 / 3: 2
            """)
    void cellsAreReadAsTheyAreSeen(String page, boolean heading, String rows) throws IOException {
        ReadOptions options = ReadOptions.of("page.html")
                .withShape(",", "\"", "utf-8", heading)
                .withNullWords(List.of("", "n/a"))
                .withForm(new ReadOptions.Form.Html(""));
        assertThat(read(saved(page, StandardCharsets.UTF_8), options)).isEqualTo(rows);
    }

    @ParameterizedTest
    @CsvSource({
        "UTF-8, '', Müller",
        "windows-1252, '', Müller",
        "windows-1252, <meta charset=windows-1252>, Müller",
        "UTF-16, '', Müller"
    })
    void encodingsAreThoseOfThePage(String charset, String meta, String name) throws IOException {
        Path file = saved(meta + "<table><tr><th>Müller</table>", Charset.forName(charset));
        ReadOptions options = ReadOptions.of("page.html").withForm(new ReadOptions.Form.Html(""));
        assertThat(read(file, options)).isEqualTo(name);
    }

    @ParameterizedTest
    @CsvSource(delimiter = ';', nullValues = "-", textBlock = """
            1      ; day,from ; -
            2      ; part     ; -
            MAY    ; part     ; -
            open   ; day,from ; -
            ''     ; -        ; There are 2 tables on the page, and none of them is named.
            3      ; -        ; There is no table 3 on the page.
            june   ; -        ; There is no table june on the page.
            """)
    void aTableIsNamedByNumberOrWords(String table, String columns, String problem) throws IOException {
        Outcome<SourceFile> opened = SourceFile.open(
                saved(TWO, StandardCharsets.UTF_8),
                ReadOptions.of("page.html").withForm(new ReadOptions.Form.Html(table)));
        assertThat(opened.value()
                        .map(f -> f.columns().stream().map(c -> c.name()).collect(Collectors.joining(","))))
                .isEqualTo(Optional.ofNullable(columns));
        assertThat(opened.problems().stream().map(p -> p.what().replace("page.html: ", "")))
                .isEqualTo(problem == null ? List.of() : List.of(problem));
    }

    @Test
    void allTablesOfAPageAreFoundAndEachIsRead() throws IOException {
        Path file = saved(TWO, StandardCharsets.UTF_8);
        ReadOptions detected = DelimitedShape.detect(file, "page.html", List.of(""));
        assertThat(detected.form()).contains(new ReadOptions.Form.Html(""));
        List<FileParts.Part> parts = FileParts.of(file, detected).get();
        assertThat(parts)
                .extracting(p -> p.title() + ": " + p.size() + " " + p.names() + " " + p.first())
                .containsExactly(
                        "table 1, Open: 1 row of 2 columns [day, from] [[Monday, 8]]",
                        "table 2, Costs of May: 1 row of 1 column [part] [[hinge]]");
        for (FileParts.Part part : parts) {
            assertThat(SourceFile.open(file, part.options()).get().columns()).hasSameSizeAs(part.names());
        }
    }

    /// A page that was saved under the name of a text with rows is told, and not taken apart at its commas.
    @ParameterizedTest
    @CsvSource(delimiter = ';', textBlock = """
            <!DOCTYPE html><html><body>Not, found</body></html>        ; true
            <?xml version="1.0"?><!-- a --> <html><body></body></html> ; true
            <html lang="en">                                           ; true
            <htmlish>,b                                                ; false
            a<html>,b                                                  ; false
            """)
    void aPageIsNoTextWithRows(String text, boolean page) throws IOException {
        Path file = Files.writeString(folder.resolve("rows.csv"), text + "\n");
        Outcome<SourceFile> opened =
                SourceFile.open(file, ReadOptions.of("rows.csv").withForm(new ReadOptions.Form.Delimited()));
        assertThat(opened.problems().stream().anyMatch(p -> p.what().equals("rows.csv is a page of the web.")))
                .isEqualTo(page);
    }
}
