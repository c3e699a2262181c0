package fixshelf.demo;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.util.ArrayList;
import java.util.List;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.pdmodel.PDPage;
import org.apache.pdfbox.pdmodel.PDPageContentStream;
import org.apache.pdfbox.pdmodel.common.PDRectangle;
import org.apache.pdfbox.pdmodel.font.PDType1Font;
import org.apache.pdfbox.pdmodel.font.Standard14Fonts;

/// The quarterly report as the office prints it: a ruled table over two pages, its heading on both, marks inside
/// numbers, and a total among the rows.
final class ReportPdf {
    static final String FILE = "quarterly-report.pdf";

    private static final List<String> ROOMS = List.of("Alder Quay", "Thornmere", "Upper Sallow", "Copper Lane");
    private static final List<String> ITEMS = List.of("lamps", "clothes", "bicycles", "kitchen");
    private static final float[] WIDTHS = {120, 110, 80, 80, 100};
    private static final float HEIGHT = 20;
    private static final int FIRST_PAGE = 11;

    private ReportPdf() {}

    static void write(Path file) throws IOException {
        List<List<String>> rows = rows();
        List<String> heading = List.of("Room", "Group", "Visits", "Mended", "Parts cost");
        Path part = file.resolveSibling("." + file.getFileName() + ".part");
        try (PDDocument document = new PDDocument()) {
            page(document, "Brindle Valley mending rooms: the first quarter", heading, rows.subList(0, FIRST_PAGE));
            page(document, "Continued", heading, rows.subList(FIRST_PAGE, rows.size()));
            document.save(part.toFile());
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }

    private static List<List<String>> rows() {
        List<List<String>> rows = new ArrayList<>();
        long visits = 0;
        long mended = 0;
        long cents = 0;
        int n = 0;
        for (String room : ROOMS) {
            for (String item : ITEMS) {
                n++;
                long came = 90 + n * 137 % 1_300;
                long done = came * (60 + n * 7 % 35) / 100;
                long cost = done * (110 + n * 61 % 400);
                visits += came;
                mended += done;
                cents += cost;
                rows.add(List.of(room, item, n == 6 ? "" : marked(came), marked(done), money(cost)));
            }
        }
        rows.add(List.of("Total", "", marked(visits), marked(mended), money(cents)));
        return rows;
    }

    private static String marked(long number) {
        return String.format(java.util.Locale.ROOT, "%,d", number);
    }

    private static String money(long cents) {
        return String.format(java.util.Locale.ROOT, "%,d.%02d", cents / 100, cents % 100);
    }

    private static void page(PDDocument document, String title, List<String> heading, List<List<String>> rows)
            throws IOException {
        PDPage page = new PDPage(PDRectangle.A4);
        document.addPage(page);
        try (PDPageContentStream out = new PDPageContentStream(document, page)) {
            text(out, title, 55, 770, 14);
            row(out, heading, 730);
            for (int i = 0; i < rows.size(); i++) {
                row(out, rows.get(i), 730 - (i + 1) * HEIGHT);
            }
        }
    }

    private static void row(PDPageContentStream out, List<String> cells, float y) throws IOException {
        float x = 55;
        for (int c = 0; c < cells.size(); c++) {
            out.addRect(x, y, WIDTHS[c], HEIGHT);
            out.stroke();
            text(out, cells.get(c), x + 5, y + 6, 10);
            x += WIDTHS[c];
        }
    }

    private static void text(PDPageContentStream out, String text, float x, float y, float size) throws IOException {
        out.beginText();
        out.setFont(new PDType1Font(Standard14Fonts.FontName.HELVETICA), size);
        out.newLineAtOffset(x, y);
        out.showText(text);
        out.endText();
    }
}
