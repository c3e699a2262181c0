package fixshelf.problem;

/// The kinds of problem, each with a stable id. E1 is the expression language, E2 pages and shelf, E3 data,
/// E4 query languages, E5 runs and engines.
public enum Code {
    SYNTAX("E101"),
    UNKNOWN_NAME("E102"),
    UNKNOWN_FUNCTION("E103"),
    WRONG_TYPE("E104"),
    ARGUMENTS("E105"),
    CYCLE("E106"),
    DUPLICATE_NAME("E107"),
    NOT_CONSTANT("E108"),
    BAD_PATTERN("E109"),
    TOO_DEEP("E110"),
    NO_BODY("E201"),
    TWO_BODIES("E202"),
    BROKEN_YAML("E203"),
    BAD_FIELD("E204"),
    BAD_CASE("E205"),
    UNREADABLE_PAGE("E206"),
    NAME_CLASH("E207"),
    NO_SUCH("E208"),
    AT_REST("E209"),
    FILE_MISSING("E301"),
    FILE_EMPTY("E302"),
    BAD_ROWS("E303"),
    BAD_ENCODING("E304"),
    FIELD_TOO_LONG("E305"),
    UNCLOSED_QUOTE("E306"),
    NO_SUCH_COLUMN("E307"),
    SOURCE_CHANGED("E308"),
    VALUES_LOST("E309"),
    CANNOT_SAY("E401"),
    TARGET_EXISTS("E501"),
    TARGET_IS_SOURCE("E502"),
    TARGET_NOT_WRITABLE("E503"),
    TARGET_OUTSIDE("E510"),
    DISK_FULL("E504"),
    ENGINE_ABSENT("E505"),
    ENGINE_FAILED("E506"),
    CANCELLED("E507"),
    NO_PARAMETER_VALUE("E508"),
    DIVERGED("E509"),
    TOO_MANY_ROWS("E310"),
    CHECK_BROKEN("E311"),
    NOT_LOOKED_AT("E312"),
    FILE_BROKEN("E313"),
    TOO_MANY_VALUES("E314"),
    CANNOT_HOLD("E511"),
    NOT_ALLOWED("E512"),
    NO_PASSWORD("E513"),
    NOT_ALLOWED_TO_WRITE("E514"),
    NOT_READ_YET("E315");

    private final String id;

    Code(String id) {
        this.id = id;
    }

    public String id() {
        return id;
    }

    /// Whether something outside of the shelf has to be allowed, reached or opened first. Such a
    /// problem says which place in its own `where`, and is none of the page that leads there.
    public boolean isElsewhere() {
        return this == NOT_ALLOWED || this == NOT_ALLOWED_TO_WRITE || this == NOT_READ_YET || this == NO_PASSWORD;
    }
}
