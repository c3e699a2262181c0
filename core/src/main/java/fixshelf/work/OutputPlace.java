package fixshelf.work;

import fixshelf.problem.Code;
import fixshelf.problem.Problem;
import fixshelf.shelf.RealPath;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.UserFolder;
import fixshelf.source.SourceFile;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Stream;

/// Where an output may be put. A job may come from somebody else, so it writes known kinds of files, as regular files,
/// inside its shelf but over no page of it; anywhere else only where this user said so.
public final class OutputPlace {
    private static final Set<String> PAGES = Set.of("fixes", "datasets", "jobs", "rounds", "cases");
    private static final String ALLOWED = "allowed-folders";

    private OutputPlace() {}

    /// Why a file must not be written; empty when it may be.
    ///
    /// @param byUser whether this user named the place just now, with a value for the run
    static Optional<Problem> objection(Path shelf, PlannedJob.Target target, List<Path> read, boolean byUser) {
        Path file = target.file();
        String name = String.valueOf(file.getFileName());
        if (target.form() == OutputForm.SERVER) {
            return Optional.empty();
        }
        if (OutputForm.of(file).isEmpty()) {
            return refused(
                    file,
                    "An output is delimited text, a workbook, JSON, Parquet or a database, and " + name
                            + " has another ending.",
                    "End its name in one of " + OutputForm.endings() + ".");
        }
        if (Files.exists(file, LinkOption.NOFOLLOW_LINKS) && !Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS)) {
            String kind =
                    Files.isSymbolicLink(file) ? "a link" : Files.isDirectory(file) ? "a folder" : "no plain file";
            return refused(file, name + " is " + kind + ".", "Name a file that is written anew.");
        }
        Optional<Problem> ofShelf = ofShelf(shelf, file, read);
        if (ofShelf.isPresent() || RealPath.of(file).startsWith(RealPath.of(shelf))) {
            return ofShelf;
        }
        Path place = RealPath.of(file);
        return byUser || isAllowed(place)
                ? Optional.empty()
                : Optional.of(Problem.about(
                        Code.TARGET_OUTSIDE,
                        file.toString(),
                        "The job would write outside its shelf, to " + file + ".",
                        "If you want that, allow the folder once: fixshelf allow " + file.getParent()
                                + "; or name the place for this run with --set."));
    }

    /// Why a file must not be written because a shelf reads it, or keeps its pages there; empty when that is not so.
    public static Optional<Problem> ofShelf(Shelf shelf, Path file) {
        return ofShelf(shelf.root(), file, readBy(shelf));
    }

    private static Optional<Problem> ofShelf(Path shelf, Path file, List<Path> read) {
        Optional<Path> pattern = read.stream().filter(p -> isIn(p, file)).findFirst();
        if (pattern.isPresent()) {
            return Optional.of(Problem.about(
                    Code.TARGET_IS_SOURCE,
                    file.toString(),
                    "The output would be one of the files that this shelf reads as "
                            + pattern.get().getFileName() + ".",
                    "Give it a name that is not like that, or write it into another folder."));
        }
        if (read.stream().anyMatch(source -> isSame(file, source))) {
            return Optional.of(Problem.about(
                    Code.TARGET_IS_SOURCE,
                    file.toString(),
                    "The output would replace a file that this shelf reads.",
                    "Write to another file; sources are never written to."));
        }
        Path root = RealPath.of(shelf);
        Path place = RealPath.of(file);
        if (!place.startsWith(root)) {
            return Optional.empty();
        }
        Path inside = root.relativize(place);
        boolean page =
                inside.getNameCount() > 1 && PAGES.contains(inside.getName(0).toString())
                        || inside.toString().equals("shelf.yaml");
        boolean hidden = Stream.iterate(0, i -> i < inside.getNameCount(), i -> i + 1)
                .anyMatch(i -> inside.getName(i).toString().startsWith("."));
        return page || hidden
                ? refused(
                        file,
                        inside + " is a place for pages of the shelf, or hidden.",
                        "Write into a folder such as out.")
                : Optional.empty();
    }

    private static Optional<Problem> refused(Path file, String what, String todo) {
        return Optional.of(Problem.about(Code.TARGET_NOT_WRITABLE, file.toString(), what, todo));
    }

    /// Whether a file would be among those that a pattern stands for.
    private static boolean isIn(Path pattern, Path file) {
        return SourceFile.isPattern(pattern)
                && SourceFile.fits(pattern, file)
                && RealPath.of(file.toAbsolutePath().normalize().getParent())
                        .equals(RealPath.of(pattern.toAbsolutePath().normalize().getParent()));
    }

    private static boolean isSame(Path file, Path other) {
        try {
            return Files.exists(file) && Files.exists(other)
                    ? Files.isSameFile(file, other)
                    : RealPath.of(file).equals(RealPath.of(other));
        } catch (IOException e) {
            return RealPath.of(file).equals(RealPath.of(other));
        }
    }

    /// The folders outside of shelves that this user lets jobs write to: those that were allowed once, and those that
    /// the variable `FIXSHELF_ALLOW` of the system names.
    public static List<Path> allowed() {
        List<Path> folders = new ArrayList<>(UserFolder.allowedBySystem());
        UserFolder.lines(ALLOWED).stream()
                .filter(l -> !l.isBlank())
                .map(Path::of)
                .forEach(folders::add);
        return folders;
    }

    private static boolean isAllowed(Path place) {
        return allowed().stream().anyMatch(folder -> place.startsWith(RealPath.of(folder)));
    }

    /// Remembers that jobs of this user may write into a folder, for all shelves, until it is taken back.
    public static void allow(Path folder) throws IOException {
        UserFolder.add(ALLOWED, RealPath.of(folder).toString());
    }

    /// Takes back that jobs may write into a folder.
    public static void forbid(Path folder) throws IOException {
        UserFolder.remove(ALLOWED, Set.of(RealPath.of(folder).toString()));
    }

    /// The files of all datasets of a shelf, where they can be told.
    static List<Path> readBy(Shelf shelf) {
        List<Path> files = new ArrayList<>();
        for (var dataset : shelf.datasets()) {
            Datasets.file(shelf, dataset.name()).ifPresent(files::add);
        }
        return files;
    }
}
