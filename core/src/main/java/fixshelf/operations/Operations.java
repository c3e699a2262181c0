package fixshelf.operations;

import fixshelf.plan.Line;
import fixshelf.plan.Operation;
import java.util.List;
import java.util.Optional;

/// The list of built-in operations.
public final class Operations {
    public static final List<Operation> ALL = List.of(
            new Read(),
            new ReadFile(),
            new HeadingRow(),
            new NamesToRow(),
            new KeepRows(),
            new LeaveOutRows(),
            new LeaveOutBlankRows(),
            new FirstRows(),
            new SkipRows(),
            new DropRepeats(),
            new MarkRepeats(),
            new SortRows(),
            new NumberRows(),
            new Choose(),
            new Drop(),
            new LeaveOutBlankColumns(),
            new LeaveOutConstantColumns(),
            new AlignLeft(),
            new Rename(),
            new RenameByList(),
            new NameColumns(),
            new Add(),
            new SetColumns(),
            new SetParts(),
            new ReadAs(),
            new ReadDetected(),
            new ReadDeclared(),
            new JoinColumns(),
            new SplitColumn(),
            new ListColumns(),
            new ByMapping(),
            new ByMappings(),
            new Scale(),
            new FillMissing(),
            new FillWithMean(),
            new MakeMissing(),
            new Carry(),
            new FromRow(),
            new Running(),
            new OverGroup(),
            new GroupRows(),
            new CountBy(),
            new ColumnsToRows(),
            new HeadingsToRows(),
            new RowsToColumns(),
            new TurnTable(),
            new ListToRows(),
            new RowsToList(),
            new BringIn(),
            new JoinTables(),
            new KeepMatching(),
            new LeaveOutMatching(),
            new PutUnder(),
            new GoOnFrom(),
            new TypedRows(),
            new RowsOfDays(),
            new CompareWith(),
            new NewIds(),
            new MakeSure(),
            new MakeSureColumns(),
            new MakeSureFilled(),
            new MakeSureUnique(),
            new MakeSureIn(),
            new MakeSureTotal(),
            new Watch());

    private Operations() {}

    /// The operation of that name.
    public static Optional<Operation> find(String name) {
        return ALL.stream().filter(o -> o.name().equals(name)).findFirst();
    }

    /// The operations that can be added as a line: all but the one that reads a file.
    public static List<Operation> added() {
        return ALL.stream().filter(o -> !o.name().equals(Line.READ_FILE)).toList();
    }
}
