package fixshelf.shelf;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.problem.SourceText;
import java.io.IOException;
import java.nio.charset.CharacterCodingException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.BiFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;

/// Reads a shelf from its folder. A page that cannot be read becomes a problem, the others are read all the same.
public final class ShelfReader {
    public static final String SETTINGS = "shelf.yaml";

    /// In bytes; more is no page that anybody reads.
    private static final long LARGEST = 2_000_000;

    private final Path root;
    private final List<Problem> problems = new ArrayList<>();

    private ShelfReader(Path root) {
        this.root = root;
    }

    /// The shelf in `root`; fails only when there is none.
    public static Outcome<Shelf> read(Path root) {
        if (!Files.isRegularFile(root.resolve(SETTINGS))) {
            return Outcome.failed(Problem.about(
                    Code.NO_SUCH,
                    root.toString(),
                    "There is no shelf in this folder: it has no " + SETTINGS + ".",
                    "Name another folder with --shelf, or make one with `fixshelf init DIR`."));
        }
        return Outcome.of(new ShelfReader(root).shelf());
    }

    /// What a shelf is called, without reading its pages; empty where there is none.
    public static Optional<String> name(Path root) {
        return Files.isRegularFile(root.resolve(SETTINGS))
                ? new ShelfReader(root).text(root.resolve(SETTINGS)).map(t -> Settings.read(t)
                        .name())
                : Optional.empty();
    }

    private Shelf shelf() {
        Settings settings = text(root.resolve(SETTINGS))
                .map(Settings::read)
                .orElseGet(() -> Settings.read(new SourceText(SETTINGS, "shelf: Shelf\n")));
        Map<Boolean, List<Read>> byKind = texts("fixes", ".fix.md").stream()
                .collect(Collectors.partitioningBy(t -> TableFixPages.isTableFix(t.text())));
        List<FixPage> fixes = pages(byKind.get(false), FixPages::read);
        List<TableFixPage> tables = pages(byKind.get(true), TableFixPages::read);
        List<DatasetPage> datasets =
                pages(texts("datasets", ".yaml"), (f, s) -> DatasetPages.read(f, s, settings.nullWords()));
        List<JobPage> jobs = pages(texts("jobs", ".yaml"), JobPages::read);
        return new Shelf(root, settings, fixes, tables, datasets, jobs, problems);
    }

    /// A page before it is read.
    private record Read(Path file, SourceText text) {}

    private List<Read> texts(String folder, String ending) {
        Path from = root.resolve(folder);
        if (!Files.isDirectory(from)) {
            return List.of();
        }
        try (Stream<Path> files = Files.walk(from)) {
            return files.filter(f -> f.toString().endsWith(ending) && Files.isRegularFile(f))
                    .sorted()
                    .flatMap(f -> text(f).map(s -> new Read(f, s)).stream())
                    .toList();
        } catch (IOException | java.io.UncheckedIOException e) {
            problems.add(unreadable(from, e.getMessage()));
            return List.of();
        }
    }

    /// Pages do not know each other yet, so several are read at once; they stay in their order.
    private <T> List<T> pages(List<Read> texts, BiFunction<Path, SourceText, T> reader) {
        return texts.parallelStream()
                .map(t -> page(t, reader))
                .flatMap(Optional::stream)
                .toList();
    }

    /// One page; whatever it does to the reader, the others are read all the same.
    private <T> Optional<T> page(Read read, BiFunction<Path, SourceText, T> reader) {
        try {
            return Optional.of(reader.apply(read.file(), read.text()));
        } catch (StackOverflowError | RuntimeException e) {
            String why =
                    e instanceof StackOverflowError ? "it is nested too deeply" : "of a fault of the program, " + e;
            synchronized (problems) {
                problems.add(unreadable(read.file(), why));
            }
            return Optional.empty();
        }
    }

    private Optional<SourceText> text(Path file) {
        String name = root.relativize(file).toString().replace('\\', '/');
        try {
            if (Files.size(file) > LARGEST) {
                problems.add(unreadable(file, "it is larger than two million bytes"));
                return Optional.empty();
            }
            return Optional.of(new SourceText(name, Files.readString(file)));
        } catch (CharacterCodingException e) {
            problems.add(unreadable(file, "it is not UTF-8 text"));
        } catch (IOException e) {
            problems.add(unreadable(file, e.getMessage()));
        }
        return Optional.empty();
    }

    private static Problem unreadable(Path file, String why) {
        return Problem.about(
                Code.UNREADABLE_PAGE,
                file.toString(),
                "This page cannot be read: " + why + ".",
                "Look at the file and its rights.");
    }
}
