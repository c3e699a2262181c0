package fixshelf.bench;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.shelf.PageFiles;
import fixshelf.shelf.ShelfReader;
import fixshelf.source.CarefulRows;
import fixshelf.source.SourceFile;
import fixshelf.work.JobRun;
import fixshelf.work.PlannedJob;
import java.io.OutputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.Iterator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.dhatim.fastexcel.Workbook;
import org.dhatim.fastexcel.Worksheet;
import org.dhatim.fastexcel.reader.Cell;
import org.dhatim.fastexcel.reader.ReadableWorkbook;
import org.dhatim.fastexcel.reader.ReadingOptions;
import org.dhatim.fastexcel.reader.Row;

/// A workbook read into a table, beside the reading library by itself, pair by pair in one process.
final class Workbooks {
    private static final int COLUMNS = 20;
    private static final int FLUSH = 1_000;

    private Workbooks() {}

    /// Prints the median times, and the ratios of the pairs; the first pair warms up and does not count.
    static void measure(int rows, int pairs) throws Exception {
        Path file = Files.createTempFile("bench", ".xlsx");
        try {
            write(file, rows);
            List<Double> alone = new ArrayList<>();
            List<Double> read = new ArrayList<>();
            List<Double> ratios = new ArrayList<>();
            for (int pair = 0; pair <= pairs; pair++) {
                double library = seconds(() -> alone(file));
                double ours = seconds(() -> read(file));
                if (pair > 0) {
                    alone.add(library);
                    read.add(ours);
                    ratios.add(ours / library);
                }
            }
            print("read", rows, alone, read, ratios);
        } finally {
            Files.delete(file);
        }
        measureWriting(rows, pairs);
    }

    private static void print(String what, int rows, List<Double> alone, List<Double> ours, List<Double> ratios) {
        Collections.sort(ratios);
        System.out.printf(
                "| %s, %,d rows by %d | %.1f | %.1f | **%.2f** | %.2f to %.2f |%n",
                what, rows, COLUMNS, median(alone), median(ours), median(ratios), ratios.getFirst(), ratios.getLast());
    }

    /// The same cells written by the library, and by a job that has them in a Parquet file.
    private static void measureWriting(int rows, int pairs) throws Exception {
        Path folder = Files.createTempDirectory("bench");
        Path file = folder.resolve("alone.xlsx");
        PageFiles.initShelf(folder.resolve("shelf"), "bench");
        Path cells = folder.resolve("shelf/data/cells.parquet");
        try (DuckSession session = DuckSession.open(List.of(cells), Optional.empty())) {
            String columns = IntStream.range(0, COLUMNS)
                    .mapToObj(c ->
                            (c < COLUMNS / 2 ? "'text ' || r % 97 || ' " + c + "'" : "(r * 0.25 + " + c + ")::DOUBLE")
                                    + " AS c" + c)
                    .collect(Collectors.joining(", "));
            session.run("COPY (SELECT " + columns + " FROM range(1, " + (rows + 1) + ") AS t(r)) TO "
                    + DuckSession.text(cells.toString()) + " (FORMAT parquet)");
        }
        Path page = folder.resolve("shelf/jobs/book.yaml");
        Files.writeString(
                page,
                "job: book\nlines:\n  - read: " + cells + "\noutputs:\n  - write: book.xlsx\n    replace: true\n");
        PlannedJob job = ShelfReader.read(folder.resolve("shelf"))
                .then(shelf -> PlannedJob.plan(shelf, shelf.job("book").orElseThrow(), Map.of()))
                .get();
        List<Double> alone = new ArrayList<>();
        List<Double> written = new ArrayList<>();
        List<Double> ratios = new ArrayList<>();
        for (int pair = 0; pair <= pairs; pair++) {
            double library = seconds(() -> write(file, rows));
            double ours = seconds(() -> JobRun.run(job, JobRun.Watcher.NONE).get());
            if (pair > 0) {
                alone.add(library);
                written.add(ours);
                ratios.add(ours / library);
            }
        }
        print("written", rows, alone, written, ratios);
    }

    static double median(List<Double> values) {
        List<Double> sorted = values.stream().sorted().toList();
        return sorted.get(sorted.size() / 2);
    }

    /// What is measured.
    interface Work {
        void run() throws Exception;
    }

    static double seconds(Work work) throws Exception {
        long start = System.nanoTime();
        work.run();
        return (System.nanoTime() - start) / 1e9;
    }

    private static void write(Path file, int rows) throws Exception {
        try (OutputStream out = Files.newOutputStream(file);
                Workbook book = new Workbook(out, "Fix Shelf bench", "1.0")) {
            Worksheet sheet = book.newWorksheet("rows");
            for (int c = 0; c < COLUMNS; c++) {
                sheet.value(0, c, "c" + c);
            }
            for (int r = 1; r <= rows; r++) {
                for (int c = 0; c < COLUMNS; c++) {
                    if (c < COLUMNS / 2) {
                        sheet.value(r, c, "text " + r % 97 + " " + c);
                    } else {
                        sheet.value(r, c, r * 0.25 + c);
                    }
                }
                if (r % FLUSH == 0) {
                    sheet.flush();
                }
            }
        }
    }

    private static void alone(Path file) throws Exception {
        long cells = 0;
        try (ReadableWorkbook book = new ReadableWorkbook(file.toFile(), new ReadingOptions(true, false));
                Stream<Row> rows = book.getFirstSheet().openStream()) {
            for (Iterator<Row> each = rows.iterator(); each.hasNext(); ) {
                for (Cell cell : each.next()) {
                    cells += cell == null || cell.getValue() == null ? 0 : 1;
                }
            }
        }
        if (cells == 0) {
            throw new IllegalStateException("no cells");
        }
    }

    private static void read(Path file) {
        SourceFile source =
                SourceFile.open(file, ReadOptions.of(file.toString())).get();
        try (DuckSession session = DuckSession.open(List.of(file), Optional.empty())) {
            CarefulRows.read(source, session, "rows").get();
        }
    }
}
