package fixshelf.work;

import fixshelf.fetch.Copies;
import fixshelf.plan.Line;
import fixshelf.plan.TableExample;
import fixshelf.plan.TableFix;
import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.JobPages;
import fixshelf.shelf.Shelf;
import fixshelf.shelf.TableFixPage;
import fixshelf.source.SourceFile;
import java.nio.file.Files;
import java.nio.file.Path;

/// The cases of a table fix or a loader, ready to be tried. Where one reads a file, its rows are what every language is
/// given: reading is done here, and the lines are held to be the same everywhere.
public final class LoaderCases {
    /// More rows are no case that anybody looks at.
    private static final long MOST_ROWS = 1_000;

    private LoaderCases() {}

    /// The page as an operation whose examples have the rows of their files.
    public static TableFix ready(Shelf shelf, TableFixPage page) {
        TableFix operation = shelf.operation(page);
        return page.isLoader()
                ? operation.with(page.cases().stream()
                        .map(c -> c.reads().isEmpty() ? c : c.with(rows(shelf, page, c)))
                        .toList())
                : operation;
    }

    private static Outcome<TableExample.Table> rows(Shelf shelf, TableFixPage page, TableExample example) {
        Path folder = page.file().toAbsolutePath().getParent();
        Outcome<String> written = Placeholders.path(
                example.reads(), Problem.Where.nowhere(page.source().name()));
        if (!written.isPresent()) {
            return Outcome.failed(written.problems().getFirst());
        }
        Path file = folder.resolve(example.reads()).normalize();
        if (!file.startsWith(folder.resolve("cases")) || !Files.isRegularFile(file) || !isWithin(file, folder)) {
            return Outcome.failed(Problem.about(
                    Code.FILE_MISSING,
                    page.source().name(),
                    "The case " + example.title() + " reads " + example.reads() + ", which is no file beside the page.",
                    "Put it there."));
        }
        Line call = JobPages.call(example.call());
        return shelf.reading(page, call.blanks())
                .then(read -> Copies.openFile(shelf.root(), file, shelf.options(read)))
                .then(LoaderCases::table);
    }

    private static boolean isWithin(Path file, Path folder) {
        try {
            return file.toRealPath().startsWith(folder.toRealPath());
        } catch (java.io.IOException e) {
            return false;
        }
    }

    private static Outcome<TableExample.Table> table(SourceFile file) {
        return Preview.open(file, MOST_ROWS, MOST_ROWS).then(preview -> {
            try (preview) {
                return preview.careful().filter(c -> c.badCount() > 0).isPresent()
                                && !file.options().leaveOutBadRows()
                        ? Outcome.failed(preview.careful().get().problem(file))
                        : preview.query(rows -> "SELECT * FROM " + rows).map(TableTrial::table);
            }
        });
    }
}
