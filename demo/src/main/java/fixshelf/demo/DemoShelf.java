package fixshelf.demo;

import java.io.BufferedOutputStream;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.Deque;
import java.util.List;
import java.util.Objects;
import java.util.SplittableRandom;

/// Puts the demo shelf and its data into a folder.
public final class DemoShelf {
    public static final long SEED = 7;
    public static final long ROWS = 12_408;

    private DemoShelf() {}

    /// Makes the shelf in `folder`; `rows` is the size of the largest room's file, the others are smaller. Pages that
    /// are there already stay as they are, so that a user's changes are kept; data that is there stays too.
    public static Path create(Path folder, long rows) throws IOException {
        for (String page : pages()) {
            Path file = folder.resolve(page);
            if (!Files.exists(file)) {
                Files.createDirectories(file.getParent());
                try (InputStream in = Objects.requireNonNull(DemoShelf.class.getResourceAsStream(page), page)) {
                    Files.copy(in, file);
                }
            }
        }
        Path data = folder.resolve("data");
        Files.createDirectories(data);
        long size = rows;
        for (Room room : Room.values()) {
            Path file = data.resolve(room.file);
            if (!Files.exists(file)) {
                write(room, size, file);
            }
            size = Math.max(2, size / 3);
        }
        Path book = data.resolve(QuarterBook.FILE);
        if (!Files.exists(book)) {
            QuarterBook.write(book);
        }
        if (!Files.exists(data.resolve(ReportPdf.FILE))) {
            ReportPdf.write(data.resolve(ReportPdf.FILE));
        }
        if (!Files.exists(data.resolve(ToolLoans.FILE))) {
            ToolLoans.write(data.resolve(ToolLoans.FILE));
        }
        return folder;
    }

    /// The demo of the usual size in `folder`; a disk that is full is an [UncheckedIOException].
    public static Path at(Path folder) {
        try {
            return create(folder, ROWS);
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /// The page of the job that most is shown with, in a demo shelf.
    public static Path job(Path shelf) {
        return shelf.resolve("jobs/visits_clean.yaml");
    }

    private static List<String> pages() throws IOException {
        try (InputStream in = Objects.requireNonNull(DemoShelf.class.getResourceAsStream("pages.txt"))) {
            return new String(in.readAllBytes(), StandardCharsets.UTF_8)
                    .lines()
                    .filter(l -> !l.isBlank())
                    .toList();
        }
    }

    /// Writes a file of the largest room's form, for measurements.
    public static void writeVisits(Path file, long rows) throws IOException {
        write(Room.ALDER_QUAY, rows, file);
    }

    /// Of every 40 visits one is noted twice; its second note follows some rows later.
    static void write(Room room, long rows, Path file) throws IOException {
        SplittableRandom random = new SplittableRandom(SEED + room.ordinal());
        Path part = file.resolveSibling("." + file.getFileName() + ".part");
        try (OutputStream bytes = new BufferedOutputStream(Files.newOutputStream(part), 1 << 20);
                BufferedWriter out = new BufferedWriter(new OutputStreamWriter(bytes, room.charset), 1 << 16)) {
            out.write(room.mark ? "\uFEFF" : "");
            out.write(room.heading.replace("£", room.charset.equals(StandardCharsets.US_ASCII) ? "" : "£")
                    + room.lineEnd);
            Deque<Visit> waiting = new ArrayDeque<>();
            long number = 0;
            for (long row = 0; row < rows; row++) {
                boolean due = !waiting.isEmpty()
                        && (waiting.size() > 3 || random.nextInt(9) == 0 || rows - row <= waiting.size());
                if (due) {
                    out.write(line(room, waiting.removeFirst(), random));
                    continue;
                }
                Visit visit = Visit.of(SEED, ++number);
                boolean twice = isNotedTwice(number) && rows - row > waiting.size() + 1;
                if (twice) {
                    waiting.addLast(visit);
                }
                out.write(line(room, twice ? visit.firstNote() : visit, random));
            }
        }
        Files.move(part, file, java.nio.file.StandardCopyOption.ATOMIC_MOVE);
    }

    /// What a character set cannot hold is written as the volunteers do: with a hyphen.
    private static String line(Room room, Visit visit, SplittableRandom random) {
        String line = room.line(visit, random);
        return room.charset.equals(StandardCharsets.UTF_8) ? line : line.replace('–', '-');
    }

    static boolean isNotedTwice(long number) {
        return number % 40 == 17;
    }
}
