package fixshelf.plan;

import fixshelf.type.Column;
import java.util.List;

/// The steps of a job, one for each line, the first of them reads.
public record Plan(List<Step> steps) {
    public Plan {
        steps = List.copyOf(steps);
    }

    public Step last() {
        return steps.getLast();
    }

    public List<Column> columns() {
        return last().columns();
    }

    /// The columns of the source.
    public List<Column> source() {
        return steps.getFirst().columns();
    }

    /// The names of other tables that lines bring in.
    public List<fixshelf.table.Relation.Source> others() {
        return steps.stream()
                .skip(1)
                .flatMap(s -> s.sources().stream())
                .distinct()
                .toList();
    }
}
