package fixshelf.cli;

import fixshelf.plan.ReadOptions;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.Shelf;
import fixshelf.source.DelimitedShape;
import fixshelf.source.FilePattern;
import fixshelf.source.SourceFile;
import fixshelf.work.Datasets;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.util.List;

/// What a command looks at: a dataset of the shelf by its name, or a file.
final class Sources {
    private Sources() {}

    /// A dataset of that name, or else a file, as its beginning says that it is formed; a problem for what is neither.
    static Outcome<SourceFile> open(Shelf shelf, String what) {
        boolean dataset = shelf.dataset(what).isPresent();
        Path file = file(shelf, Path.of(what));
        if (dataset || !Files.exists(file) && what.matches("[\\p{L}\\p{N}_]+")) {
            return Datasets.openNamed(shelf, what);
        }
        return detected(file, path(shelf, file), shelf.settings().nullWords());
    }

    /// The file that was typed: from where the command was given, or else from the shelf's folder.
    static Path file(Shelf shelf, Path typed) {
        Path here = typed.toAbsolutePath().normalize();
        Path there = shelf.root().resolve(typed).normalize();
        return !Files.exists(here) && Files.exists(there) ? there : here;
    }

    /// A file as a page of this shelf would name it: from the shelf's folder where it is in it.
    static String path(Shelf shelf, Path file) {
        return file.startsWith(shelf.root()) ? shelf.root().relativize(file).toString() : file.toString();
    }

    /// A file with the form that its beginning shows.
    static Outcome<SourceFile> detected(Path file, String path, List<String> nullWords) {
        return shape(file, path, nullWords).then(o -> SourceFile.open(file, o));
    }

    /// How a file would be read; what is no file to look into is left to whoever opens it.
    static Outcome<ReadOptions> shape(Path file, String path, List<String> nullWords) {
        if (!FilePattern.is(file) && !Files.exists(file, LinkOption.NOFOLLOW_LINKS)) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    file.toString(),
                    "There is no file " + file.getFileName() + ".",
                    "Look at the path; it goes from where you are, or from the shelf's folder."));
        }
        if (Files.exists(file) && !Files.isRegularFile(file)) {
            return Outcome.of(ReadOptions.of(path));
        }
        try {
            return Outcome.of(DelimitedShape.detect(file, path, nullWords));
        } catch (IOException e) {
            return Outcome.of(ReadOptions.of(path));
        }
    }
}
