package fixshelf.language.catalogue;

import fixshelf.language.tree.FunctionDef;
import fixshelf.language.tree.FunctionDef.Example;
import fixshelf.language.tree.FunctionDef.Group;
import fixshelf.language.tree.FunctionDef.Nulls;
import fixshelf.language.tree.FunctionDef.Result;
import fixshelf.language.tree.FunctionDef.Slot;
import fixshelf.language.tree.FunctionDef.Wants;
import java.util.ArrayList;
import java.util.List;

/// A catalogue entry being written. It stands apart from [Functions], which collects the entries, so that no class
/// waits for one that waits for it.
public final class Entry {

    private final Group group;
    private final String name;
    private final List<Slot> slots;
    private final List<Example> examples = new ArrayList<>();
    private List<String> aliases = List.of();
    private boolean variadic;
    private Nulls nulls = Nulls.IF_ANY;
    private Result result = Result.TEXT;
    private String about = "";

    private Entry(Group group, String name, List<Slot> slots) {
        this.group = group;
        this.name = name;
        this.slots = slots;
    }

    Entry aliases(String... names) {
        aliases = List.of(names);
        return this;
    }

    Entry repeatsLast() {
        variadic = true;
        return this;
    }

    Entry ownNulls() {
        nulls = Nulls.AS_DESCRIBED;
        return this;
    }

    Entry gives(Result type) {
        result = type;
        return this;
    }

    Entry about(String meaning) {
        about = meaning.strip().replace('\n', ' ');
        return this;
    }

    Entry example(String call, String value) {
        examples.add(new Example(call, value));
        return this;
    }

    FunctionDef done() {
        return new FunctionDef(name, aliases, slots, variadic, result, nulls, group, about, List.copyOf(examples));
    }

    /// Begins an entry; the rest is said with the methods of [Entry].
    static Entry define(Group group, String name, Slot... slots) {
        return new Entry(group, name, List.of(slots));
    }

    static Slot text(String name) {
        return new Slot(name, Wants.TEXT, false, false);
    }

    static Slot fixedText(String name) {
        return new Slot(name, Wants.TEXT, true, false);
    }

    static Slot integer(String name) {
        return new Slot(name, Wants.INTEGER, false, false);
    }

    static Slot date(String name) {
        return new Slot(name, Wants.DATE, false, false);
    }

    static Slot timestamp(String name) {
        return new Slot(name, Wants.TIMESTAMP, false, false);
    }

    static Slot numeric(String name) {
        return new Slot(name, Wants.NUMERIC, false, false);
    }

    static Slot number(String name) {
        return new Slot(name, Wants.NUMBER, false, false);
    }

    static Slot real(String name) {
        return new Slot(name, Wants.REAL, false, false);
    }

    static Slot list(String name) {
        return new Slot(name, Wants.LIST, true, false);
    }

    static Slot mapping(String name) {
        return new Slot(name, Wants.MAPPING, true, false);
    }

    static Slot same(String name) {
        return new Slot(name, Wants.SAME, false, false);
    }

    static Slot condition(String name) {
        return new Slot(name, Wants.BOOLEAN, false, false);
    }

    static Slot optional(Slot slot) {
        return new Slot(slot.name(), slot.wants(), slot.fixed(), true);
    }

    static Slot fixed(Slot slot) {
        return new Slot(slot.name(), slot.wants(), true, slot.optional());
    }
}
