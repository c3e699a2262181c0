package fixshelf.plan;

import java.util.LinkedHashMap;
import java.util.Map;
import java.util.Optional;

/// A line of a job: a call of an operation or a fix, as its author wrote it.
///
/// @param call the name of what is called
/// @param blanks what stands in its blanks, in the author's order; those that are not written are not in it
/// @param name by which later lines and outputs speak of its result; empty for none
/// @param strict whether a run stops where a value is lost
/// @param rest whether it is left out for now
public record Line(String call, Map<String, Written> blanks, String name, boolean strict, boolean rest) {
    /// The call that reads a dataset of the shelf.
    public static final String READ = "read";
    /// The blank that names the dataset.
    public static final String SOURCE = "source";
    /// The call that reads a file by itself; where it names a dataset, as the page of that one says.
    public static final String READ_FILE = "read_file";

    public Line {
        blanks = java.util.Collections.unmodifiableMap(new LinkedHashMap<>(blanks));
    }

    public Line(String call, Map<String, Written> blanks) {
        this(call, blanks, "", false, false);
    }

    /// A call with one blank filled.
    public static Line of(String call, String blank, Written written) {
        return new Line(call, Map.of(blank, written));
    }

    public static Line readDataset(String dataset) {
        return of(READ, SOURCE, Written.word(dataset));
    }

    public boolean isRead() {
        return call.equals(READ) || call.equals(READ_FILE);
    }

    public Optional<Written> written(String blank) {
        return Optional.ofNullable(blanks.get(blank));
    }

    /// The same with one blank filled anew; none means that nothing is written in it.
    public Line with(String blank, Optional<Written> written) {
        Map<String, Written> others = new LinkedHashMap<>(blanks);
        written.ifPresentOrElse(w -> others.put(blank, w), () -> others.remove(blank));
        return new Line(call, others, name, strict, rest);
    }

    public Line withStrict(boolean now) {
        return new Line(call, blanks, name, now, rest);
    }

    public Line withName(String now) {
        return new Line(call, blanks, now, strict, rest);
    }

    public Line withRest(boolean now) {
        return new Line(call, blanks, name, strict, now);
    }
}
