package fixshelf.bench;

import fixshelf.engine.DuckSession;
import fixshelf.plan.ReadOptions;
import fixshelf.profile.DataLook;
import fixshelf.source.SourceFile;
import java.io.BufferedWriter;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.Collections;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.Random;

/// A dataset looked at, with all that is odd in it, beside the engine's own summary of the same file (counts, least and
/// greatest, an estimate of how many values differ), pair by pair in one process.
final class Looks {
    private static final int COLUMNS = 30;

    private Looks() {}

    /// Prints the median times, and the ratios of the pairs; the first pair warms up and does not count.
    static void measure(int rows, int pairs) throws Exception {
        Path file = Files.createTempFile("bench", ".csv");
        try {
            write(file, rows);
            List<Double> sample = new ArrayList<>();
            List<Double> staged = new ArrayList<>();
            List<Double> looked = new ArrayList<>();
            List<Double> summary = new ArrayList<>();
            List<Double> ratios = new ArrayList<>();
            for (int pair = 0; pair <= pairs; pair++) {
                double engine = Workbooks.seconds(() -> summarize(file));
                double first =
                        Workbooks.seconds(() -> open(file, DataLook.SAMPLE_ROWS).close());
                DataLook[] data = new DataLook[1];
                double stage = Workbooks.seconds(() -> data[0] = open(file, Long.MAX_VALUE));
                double columns =
                        Workbooks.seconds(() -> data[0].columns(List.of()).get());
                data[0].close();
                if (pair > 0) {
                    summary.add(engine);
                    sample.add(first);
                    staged.add(stage);
                    looked.add(columns);
                    ratios.add((stage + columns) / engine);
                }
            }
            Collections.sort(ratios);
            System.out.printf(
                    Locale.ROOT,
                    "| %,d rows by %d | %.2f | %.1f | %.1f | %.1f | %.1f (%.1f to %.1f) |%n",
                    rows,
                    COLUMNS,
                    Workbooks.median(sample),
                    Workbooks.median(staged),
                    Workbooks.median(looked),
                    Workbooks.median(summary),
                    Workbooks.median(ratios),
                    ratios.getFirst(),
                    ratios.getLast());
        } finally {
            Files.delete(file);
        }
    }

    private static DataLook open(Path file, long most) {
        return DataLook.open(
                        SourceFile.open(file, ReadOptions.of(file.toString())).get(), most)
                .get();
    }

    private static void summarize(Path file) {
        try (DuckSession session = DuckSession.open(List.of(file), Optional.empty())) {
            session.query("SUMMARIZE SELECT * FROM read_csv('" + file + "', all_varchar = true)");
        }
    }

    /// A third of the columns have values of their own in every row: codes, times, amounts; the others few.
    private static void write(Path file, int rows) throws Exception {
        Random random = new Random(5);
        String[] words = {"kettle", "desk lamp", " radio", "wool  winder", "carpet sweeper", "n/a", "clock"};
        try (BufferedWriter out = Files.newBufferedWriter(file)) {
            for (int c = 0; c < COLUMNS; c++) {
                out.append(c == 0 ? "" : ",").append("c").append(String.valueOf(c));
            }
            out.append('\n');
            for (int r = 0; r < rows; r++) {
                for (int c = 0; c < COLUMNS; c++) {
                    out.append(c == 0 ? "" : ",")
                            .append(
                                    switch (c % 6) {
                                        case 0 -> String.format(Locale.ROOT, "AQ-%07d", r * 7 % rows);
                                        case 1 -> String.valueOf(random.nextInt(100_000) / 100.0);
                                        case 2 -> words[random.nextInt(words.length)];
                                        case 3 -> "2026-0" + (1 + random.nextInt(9)) + "-1" + random.nextInt(9);
                                        case 4 -> r % 3 == 0 ? "" : "M";
                                        default -> String.valueOf(random.nextInt(500));
                                    });
                }
                out.append('\n');
            }
        }
    }
}
