package fixshelf.render.sql;

import java.util.Set;

/// Words that a SQL language here does not take as a bare name. One list for all: quoting one too many does no harm.
final class ReservedWords {
    private ReservedWords() {}

    static final Set<String> SQL = Set.of("""
        accessible add all alter analyse analyze and anti any array as asc asensitive asof asymmetric at
        authorization autoincrement before between bigint binary bit blob boolean both by call cascade case cast
        change char character check coalesce collate collation column columns commit concurrently condition
        constraint continue convert create cross current_catalog current_date current_role current_schema
        current_time current_timestamp current_user cursor database databases dec decimal declare default
        deferrable delayed delete desc describe deterministic distinct distinctrow div do double drop dual each
        else elseif enclosed end escape escaped except exists exit explain extract false fetch float for force
        foreign freeze from full fulltext function general generated glob grant greatest group grouping
        grouping_id groups having high_priority if ignore ilike in index infile initially inner inout insensitive
        insert int integer intersect interval into is isnull iterate join key keys kill lambda lateral leading
        least leave left like limit linear lines load localtime localtimestamp lock long longblob longtext loop
        low_priority map match maxvalue mediumblob mediumint mediumtext minus mod modifies national natural nchar
        none normalize not nothing notnull null nullif numeric of offset on only optimize option optionally or
        order out outer outfile over overlaps overlay partition pivot pivot_longer pivot_wider placing position
        positional precision primary procedure purge qualify range read reads real recursive references regexp
        release rename repeat replace require resignal restrict return returning revoke right rlike rollback row
        row_number rows schema schemas select semi sensitive separator session_user set setof show signal similar
        smallint some spatial specific sql ssl starting straight_join struct substring summarize symmetric table
        tablesample terminated then time timestamp tinyblob tinyint tinytext to trailing transaction treat
        trigger trim true try_cast tuple undo union unique unlock unpack unpivot unsigned update usage use user
        using utc_date utc_time utc_timestamp values varbinary varchar varcharacter variadic varying verbose when
        where while window with write xmlattributes xmlconcat xmlelement xmlexists xmlforest xmlnamespaces
        xmlparse xmlpi xmlroot xmlserialize xmltable xor zerofill
        """.strip().split("\\s+"));
}
