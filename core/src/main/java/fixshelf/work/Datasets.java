package fixshelf.work;

import fixshelf.problem.Code;
import fixshelf.problem.Outcome;
import fixshelf.problem.Problem;
import fixshelf.shelf.DatasetPage;
import fixshelf.shelf.Shelf;
import fixshelf.source.SourceFile;
import java.nio.file.Path;
import java.util.Optional;

/// Datasets by name, for looking at them without a job.
public final class Datasets {
    private Datasets() {}

    /// The place of a dataset's file, whether it is there or not; empty when a value in its path is not known.
    static Optional<Path> file(Shelf shelf, String name) {
        return shelf.dataset(name)
                .flatMap(d -> Placeholders.fill(
                                d.options().path(), shelf.settings().values(), Problem.Where.nowhere(name))
                        .value())
                .map(path -> shelf.root().resolve(path).normalize());
    }

    /// The file of a dataset, with the values of the environment in force.
    public static Outcome<SourceFile> open(Shelf shelf, String name) {
        Optional<DatasetPage> page = shelf.dataset(name);
        if (page.isEmpty()) {
            return Outcome.failed(Problem.about(
                    Code.NO_SUCH, name, "There is no dataset " + name + " on this shelf.", "Name another."));
        }
        if (page.get().problems().stream().anyMatch(Problem::isError)) {
            return Outcome.failed(page.get().problems());
        }
        Problem.Where where = Problem.Where.nowhere(page.get().source().name());
        return Placeholders.fill(page.get().options().path(), shelf.settings().values(), where)
                .then(path -> SourceFile.open(
                        shelf.root().resolve(path).normalize(),
                        page.get().options().withPath(path)));
    }
}
