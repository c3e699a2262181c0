package fixshelf.demo;

import java.io.BufferedOutputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardCopyOption;
import java.time.LocalDate;
import java.util.List;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;

/// The workbook that Copper Lane keeps: two heading rows below a title, days as numbers, a blank row where the month
/// ends, a sum that was never worked out, and a sheet of notes that nobody asked for.
final class QuarterBook {
    static final String FILE = "copper-lane-quarter.xlsx";

    private static final List<String> ITEMS =
            List.of("kettle", "desk lamp", "radio", "trousers", "toaster", "wall clock", "bicycle", "rucksack");
    private static final List<String> MENDERS = List.of("Corin Sedge", "Renée Ostler", "Ivo Pellam", "Wren Hallow");
    private static final LocalDate FIRST = LocalDate.of(2026, 1, 5);

    private QuarterBook() {}

    static void write(Path file) throws IOException {
        Path part = file.resolveSibling("." + file.getFileName() + ".part");
        try (OutputStream out = new BufferedOutputStream(Files.newOutputStream(part));
                Workbook book = new Workbook(out, "Fix Shelf demo", "1.0")) {
            Worksheet sheet = book.newWorksheet("Quarter");
            sheet.value(0, 1, "Copper Lane mending room, first quarter");
            List<String> above = List.of("Visit", "", "", "Parts", "", "");
            List<String> below = List.of("No", "Day", "Item", "Cost", "Weight kg", "Mender");
            for (int c = 0; c < below.size(); c++) {
                sheet.value(2, c + 1, above.get(c));
                sheet.value(3, c + 1, below.get(c));
            }
            int row = 4;
            for (int visit = 0; visit < 60; visit++) {
                LocalDate day = FIRST.plusDays(visit + visit / 5 * 2L);
                sheet.value(row, 1, String.format("CL-%04d", visit + 1));
                sheet.value(row, 2, day);
                sheet.style(row, 2).format("dd/mm/yyyy").set();
                sheet.value(row, 3, ITEMS.get(visit * 5 % ITEMS.size()) + (visit % 7 == 3 ? " " : ""));
                if (visit % 6 != 5) {
                    sheet.value(row, 4, (visit * 37 % 400) / 10.0);
                }
                sheet.value(row, 5, (visit * 53 % 90) / 4.0);
                sheet.value(row, 6, MENDERS.get(visit * 3 % MENDERS.size()));
                row++;
                if (visit == 30) {
                    // The room closed for a week, and left a row blank.
                    row++;
                }
            }
            sheet.formula(row, 4, "SUM(E5:E" + row + ")");
            sheet.value(row, 1, "Total");
            book.newWorksheet("Notes").value(0, 0, "Ask Ivo for the key.");
        }
        Files.move(part, file, StandardCopyOption.ATOMIC_MOVE);
    }
}
