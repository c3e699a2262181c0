package fixshelf.source;

import static org.assertj.core.api.Assertions.assertThat;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Outcome;
import fixshelf.work.Preview;
import fixshelf.work.ReadRows;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.encryption.AccessPermission;
import org.apache.pdfbox.pdmodel.encryption.StandardProtectionPolicy;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/// Tables of PDFs: ruled and unruled, over several pages, and files that have none.
class PdfTest {
    private static final String[][] FIRST = {
        {"room", "quarter", "cost"},
        {"Thornmere", "Q1", "1,204.50"},
        {"Alder Quay", "Q1", ""},
        {"Upper Sallow", "Q2", "-3.00"}
    };
    private static final String[][] SECOND = {{"room", "quarter", "cost"}, {"Copper Lane", "Q2", "17.00"}};
    private static final float WIDTH = 110;
    private static final float HEIGHT = 22;

    @TempDir
    Path folder;

    /// Pages of tables, each drawn with lines or without, under a line of text.
    private Path write(String name, boolean ruled, String[][]... pages) throws IOException {
        try (PDDocument document = new PDDocument()) {
            for (String[][] table : pages) {
                PDPage page = new PDPage();
                document.addPage(page);
                try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                    draw(out, table, 650, ruled);
                }
            }
            document.save(folder.resolve(name).toFile());
        }
        return folder.resolve(name);
    }

    private static void draw(PDPageContentStream out, String[][] table, float top, boolean ruled) throws IOException {
        for (int r = 0; r < table.length; r++) {
            for (int c = 0; c < table[r].length; c++) {
                float x = 60 + c * WIDTH;
                float y = top - r * HEIGHT;
                if (ruled) {
                    out.addRect(x, y, WIDTH, HEIGHT);
                    out.stroke();
                }
                out.beginText();
                out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), 10);
                out.newLineAtOffset(x + 4, y + 7);
                out.showText(table[r][c]);
                out.endText();
            }
        }
    }

    private static Outcome<SourceFile> open(Path file, String pages, int table) {
        return SourceFile.open(file, ReadOptions.of(file.toString()).withForm(new ReadOptions.Form.Pdf(pages, table)));
    }

    private static String lines(String[][] table, int from) {
        return Arrays.stream(table)
                .skip(from)
                .map(r -> Arrays.stream(r).map(c -> c.isEmpty() ? "∅" : c).collect(Collectors.joining("|")))
                .collect(Collectors.joining("\n"));
    }

    @ParameterizedTest
    @CsvSource({"true", "false"})
    void tablesOfSeveralPagesAreOne(boolean ruled) throws Exception {
        Path file = write("report.pdf", ruled, FIRST, SECOND);
        assertThat(ReadRows.of(open(file, "1", 0))).isEqualTo(lines(FIRST, 0));
        Outcome<SourceFile> both = open(file, "", 0);
        assertThat(ReadRows.of(both)).isEqualTo(lines(FIRST, 0) + "\n" + lines(SECOND, 1));
        try (Preview preview = Preview.open(both.get()).get()) {
            assertThat(preview.notes())
                    .containsExactly("Read from pages 1 to 2.", "The heading stands again on page 2.");
        }
        List<FileParts.Part> parts = FileParts.of(file, both.get().options()).get();
        assertThat(parts)
                .extracting(p -> p.title() + ": " + p.size())
                .containsExactly(
                        "all pages together: " + (FIRST.length + SECOND.length - 2) + " rows of 3 columns",
                        "page 1, table 1: " + (FIRST.length - 1) + " rows of 3 columns",
                        "page 2, table 1: " + (SECOND.length - 1) + (SECOND.length == 2 ? " row" : " rows")
                                + " of 3 columns");
        assertThat(ReadRows.of(SourceFile.open(file, parts.getLast().options())))
                .isEqualTo(lines(SECOND, 0));
        // Seen from its first bytes, whatever it is called.
        Path other = Files.copy(file, folder.resolve("report.csv"));
        assertThat(ReadRows.of(SourceFile.open(other, ReadOptions.of("report.csv"))))
                .startsWith("room|quarter|cost\n");
    }

    @Test
    void ofSeveralTablesOnAPageOneIsNamed() throws Exception {
        Path file = folder.resolve("two.pdf");
        try (PDDocument document = new PDDocument()) {
            PDPage page = new PDPage();
            document.addPage(page);
            try (PDPageContentStream out = new PDPageContentStream(document, page)) {
                draw(out, FIRST, 650, true);
                draw(out, SECOND, 400, true);
            }
            document.save(file.toFile());
        }
        assertThat(open(file, "", 0).problems()).singleElement().satisfies(p -> {
            assertThat(p.what()).contains("several tables");
            assertThat(p.todo()).contains("page 1 table 2 (room | quarter | cost | Copper Lane; 2 rows)");
        });
        assertThat(ReadRows.of(open(file, "", 2))).isEqualTo(lines(SECOND, 0));
        List<FileParts.Part> parts = FileParts.of(
                        file, ReadOptions.of(file.toString()).withForm(new ReadOptions.Form.Pdf("", 0)))
                .get();
        assertThat(parts).extracting(FileParts.Part::title).containsExactly("page 1, table 1", "page 1, table 2");
        assertThat(ReadRows.of(SourceFile.open(file, parts.getLast().options())))
                .isEqualTo(lines(SECOND, 0));
        assertThat(open(file, "", 3).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("no table 3"));
    }

    @Test
    void whatIsWrongIsNamed() throws Exception {
        Path good = write("report.pdf", true, FIRST, new String[][] {{"a", "b"}, {"1", "2"}});
        assertThat(open(good, "", 0).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("different width: 3 columns before, 2 on page 2"));
        assertThat(open(good, "1, 3-4", 0).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("has 2 pages, and no page 4"));
        Path cut = folder.resolve("cut.pdf");
        Files.write(cut, Arrays.copyOf(Files.readAllBytes(good), 300));
        assertThat(open(cut, "", 0).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .containsAnyOf("cut off or broken", "no text"));
        try (PDDocument document = new PDDocument()) {
            document.addPage(new PDPage());
            document.save(folder.resolve("scan.pdf").toFile());
        }
        assertThat(open(folder.resolve("scan.pdf"), "", 0).problems())
                .singleElement()
                .satisfies(p -> assertThat(p.what()).contains("pictures of text"));
        Path text = write("text.pdf", true, new String[][] {{"Only one line"}});
        assertThat(open(text, "", 0).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("no table"));
        Path locked = folder.resolve("locked.pdf");
        try (PDDocument document = new PDDocument()) {
            document.addPage(new PDPage());
            document.protect(new StandardProtectionPolicy("owner", "secret", new AccessPermission()));
            document.save(locked.toFile());
        }
        assertThat(open(locked, "", 0).problems()).singleElement().satisfies(p -> assertThat(p.what())
                .contains("password"));
    }
}
