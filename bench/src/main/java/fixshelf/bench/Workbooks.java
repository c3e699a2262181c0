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
import java.util.Comparator;
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

/// A workbook read into a table, and written by a job, beside the libraries by themselves, pair by pair in one process.
final class Workbooks {
    private static final int COLUMNS = 20;
    private static final int FLUSH = 1_000;

    private Workbooks() {}

    /// Prints the median times, and the ratios of the pairs.
    static void measure(int rows, int pairs) throws Exception {
        Path folder = Files.createTempDirectory("bench");
        try {
            Path file = folder.resolve("alone.xlsx");
            write(file, rows);
            compare("read", rows, pairs, () -> alone(file), () -> read(file));
            PlannedJob job = writing(folder, rows);
            compare("written", rows, pairs, () -> write(file, rows), () -> JobRun.run(job, JobRun.Watcher.NONE)
                    .get());
        } finally {
            try (Stream<Path> all = Files.walk(folder)) {
                for (Path one : all.sorted(Comparator.reverseOrder()).toList()) {
                    Files.delete(one);
                }
            }
        }
    }

    /// Both in turn; the first pair warms up and does not count.
    private static void compare(String what, int rows, int pairs, Work library, Work ours) throws Exception {
        List<Double> alone = new ArrayList<>();
        List<Double> worked = new ArrayList<>();
        List<Double> ratios = new ArrayList<>();
        for (int pair = 0; pair <= pairs; pair++) {
            double theirs = seconds(library);
            double mine = seconds(ours);
            if (pair > 0) {
                alone.add(theirs);
                worked.add(mine);
                ratios.add(mine / theirs);
            }
        }
        Collections.sort(ratios);
        System.out.printf(
                "| %s, %,d rows by %d | %.1f | %.1f | **%.2f** | %.2f to %.2f |%n",
                what,
                rows,
                COLUMNS,
                median(alone),
                median(worked),
                median(ratios),
                ratios.getFirst(),
                ratios.getLast());
    }

    /// A job that has the same cells in a Parquet file, and writes them into a workbook.
    private static PlannedJob writing(Path folder, int rows) throws Exception {
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
        return ShelfReader.read(folder.resolve("shelf"))
                .then(shelf -> PlannedJob.plan(shelf, shelf.job("book").orElseThrow(), Map.of()))
                .get();
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
