package fixshelf.work;

import fixshelf.engine.DuckSession;
import fixshelf.engine.TemporaryFolder;
import fixshelf.problem.Outcome;
import fixshelf.problem.ProblemException;
import fixshelf.source.CarefulCopy;
import fixshelf.source.DelimitedFile;
import java.io.IOException;
import java.nio.file.Path;
import java.util.List;
import java.util.Optional;
import java.util.function.Consumer;

/// A session that can read one source, strictly if it is well-formed, through a careful copy if not.
final class Loaded implements AutoCloseable {
    private final DelimitedFile source;
    private final DuckSession session;
    private final TemporaryFolder folder;
    private Optional<CarefulCopy> careful = Optional.empty();

    private Loaded(DelimitedFile source, DuckSession session, TemporaryFolder folder) {
        this.source = source;
        this.session = session;
        this.folder = folder;
    }

    /// Opens a session that may read the source and also touch these files.
    static Loaded open(DelimitedFile source, List<Path> files) {
        try {
            TemporaryFolder folder = TemporaryFolder.make("rows");
            List<Path> allowed = new java.util.ArrayList<>(files);
            allowed.add(source.file());
            return new Loaded(source, DuckSession.open(allowed, Optional.of(folder.path())), folder);
        } catch (IOException e) {
            throw new java.io.UncheckedIOException("no room for temporary files", e);
        }
    }

    DuckSession session() {
        return session;
    }

    /// The rows that were left out, if the source had to be read carefully.
    Optional<CarefulCopy> careful() {
        return careful;
    }

    /// Does `work` with a relation that reads the source. It is done a second time, on a clean copy, when the source
    /// turns out not to be well-formed.
    void read(Consumer<String> work) {
        if (source.isPlain()) {
            try {
                work.accept(source.relation());
                return;
            } catch (ProblemException e) {
                boolean unreadable = e.problem().code() == fixshelf.problem.Code.ENGINE_FAILED;
                if (!unreadable) {
                    throw e;
                }
            }
        }
        Outcome<CarefulCopy> copy = CarefulCopy.make(source, folder.path().resolve("copy.csv"));
        if (!copy.isPresent()) {
            throw new ProblemException(copy.problems().getFirst());
        }
        careful = copy.value();
        work.accept(source.relationOfCopy(copy.get().copy(), copy.get().longestLine()));
    }

    @Override
    public void close() {
        session.close();
        folder.close();
    }
}
