using CalmQuill.Store.Locks;

namespace CalmQuill.Store.Library;

/// <summary>A page where somebody left off.</summary>
public sealed record LeftOff(Guid Space, string NotebookName, ShownPage Page);

/// <summary>What somebody else did: wrote on so many pages of a notebook.</summary>
public sealed record GroupNews(
    Guid Space,
    Guid Person,
    string Name,
    string Colour,
    Guid Notebook,
    string NotebookName,
    int Pages,
    Guid LastPage,
    long At
);

/// <summary>A notebook that a person uses often.</summary>
public sealed record OftenUsed(Guid Space, Guid Notebook, string Name, double Score, int LastDay);

/// <summary>What the Desk shows of one person's spaces.</summary>
public sealed class DeskStore(Database database)
{
    /// <summary>The last notebooks a person wrote in, each with the page written on last.</summary>
    public Task<List<LeftOff>> LeftOff(Guid person, int most, IReadOnlyList<NotebookRef> locked, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT l.space_id, l.name, l.notebook_id, l.id, l.number, l.title, l.paper, coalesce(d.last_seq, 0), (extract(epoch FROM l.at) * 1000)::bigint
                FROM (
                    SELECT DISTINCT ON (e.notebook_id) e.space_id, n.name, e.notebook_id, e.id, e.number, e.title, e.paper, w.written_at AS at
                    FROM (SELECT space_id, page_id, written_at FROM page_writers WHERE person_id = @person ORDER BY written_at DESC LIMIT 200) w
                    JOIN notebook_entries e ON e.space_id = w.space_id AND e.id = w.page_id AND NOT e.in_bin AND (e.space_id, e.notebook_id) NOT IN (SELECT * FROM unnest(@spaces, @locked))
                    JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id AND NOT n.in_bin AND NOT n.jot
                    JOIN members m ON m.space_id = e.space_id AND m.person_id = @person
                    ORDER BY e.notebook_id, w.written_at DESC
                ) l
                LEFT JOIN documents d ON d.space_id = l.space_id AND d.kind = 3 AND d.id = l.id
                ORDER BY l.at DESC
                LIMIT @most
                """
            )
            .With(
                ("person", person),
                ("most", most),
                ("spaces", locked.Select(one => one.Space).ToArray()),
                ("locked", locked.Select(one => one.Notebook).ToArray())
            )
            .Rows(
                row => new LeftOff(
                    row.GetGuid(0),
                    row.GetString(1),
                    new ShownPage(
                        row.GetGuid(2),
                        row.GetGuid(3),
                        row.GetInt32(4),
                        row.GetString(5),
                        row.GetString(6),
                        row.GetInt64(7),
                        row.GetInt64(8)
                    )
                ),
                cancel
            );

    /// <summary>What the others of a person's groups wrote since a moment, a line for each person and notebook, latest first.</summary>
    public Task<List<GroupNews>> Since(
        Guid person,
        DateTimeOffset since,
        int most,
        IReadOnlyList<NotebookRef> locked,
        CancellationToken cancel
    ) =>
        database
            .Command(
                """
                SELECT e.space_id, p.id, p.name, p.colour, e.notebook_id, n.name, count(DISTINCT e.id)::int, (array_agg(e.id ORDER BY w.written_at DESC))[1],
                    (extract(epoch FROM max(w.written_at)) * 1000)::bigint
                FROM page_writers w
                JOIN people p ON p.id = w.person_id
                JOIN notebook_entries e ON e.space_id = w.space_id AND e.id = w.page_id AND NOT e.in_bin AND (e.space_id, e.notebook_id) NOT IN (SELECT * FROM unnest(@spaces, @locked))
                JOIN library_nodes n ON n.space_id = e.space_id AND n.id = e.notebook_id AND NOT n.in_bin
                JOIN members m ON m.space_id = e.space_id AND m.person_id = @person
                WHERE w.written_at > @since AND w.person_id <> @person
                GROUP BY e.space_id, p.id, p.name, p.colour, e.notebook_id, n.name
                ORDER BY max(w.written_at) DESC
                LIMIT @most
                """
            )
            .With(
                ("person", person),
                ("since", since.UtcDateTime),
                ("most", most),
                ("spaces", locked.Select(one => one.Space).ToArray()),
                ("locked", locked.Select(one => one.Notebook).ToArray())
            )
            .Rows(
                row => new GroupNews(
                    row.GetGuid(0),
                    row.GetGuid(1),
                    row.GetString(2),
                    row.GetString(3),
                    row.GetGuid(4),
                    row.GetString(5),
                    row.GetInt32(6),
                    row.GetGuid(7),
                    row.GetInt64(8)
                ),
                cancel
            );

    /// <summary>The notebooks a person uses most, by <see cref="Core.Library.Visits"/>.</summary>
    public Task<List<OftenUsed>> Often(Guid person, int most, CancellationToken cancel) =>
        database
            .Command(
                """
                SELECT v.space_id, v.target, n.name, v.score, v.last_day
                FROM visits v
                JOIN library_nodes n ON n.space_id = v.space_id AND n.id = v.target AND NOT n.in_bin
                JOIN members m ON m.space_id = v.space_id AND m.person_id = @person
                WHERE v.person_id = @person
                ORDER BY v.score DESC
                LIMIT @most
                """
            )
            .With(("person", person), ("most", most))
            .Rows(row => new OftenUsed(row.GetGuid(0), row.GetGuid(1), row.GetString(2), row.GetDouble(3), row.GetInt32(4)), cancel);
}
