package fixshelf.plan;

import fixshelf.type.Column;
import java.util.List;

/// The steps of a job, one for each line, the first of them reads.
public record Plan(List<Step> steps) {
    public Plan {
        steps = List.copyOf(steps);
    }

    /// The plan up to and with line `line`, counted from 1.
    public Plan upTo(int line) {
        return new Plan(steps.subList(0, Math.max(1, Math.min(line, steps.size()))));
    }

    public Step last() {
        return steps.getLast();
    }

    public List<Column> columns() {
        return last().columns();
    }

    public Step.Read read() {
        return (Step.Read) steps.getFirst();
    }
}
