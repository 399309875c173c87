using CalmQuill.Store.Documents;
using CalmQuill.Store.Lecterns;

namespace CalmQuill.Server.Live;

/// <summary>
/// What somebody shows from a lectern at this moment. It is kept as long as the leader's connection lasts; that the lectern is open, the database knows.
/// </summary>
/// <param name="Id">The lectern.</param>
/// <param name="Notebook">The notebook that is taught from.</param>
/// <param name="Page">The page that is shown; empty before the leader showed one.</param>
/// <param name="Lifted">The curtains that are lifted for all.</param>
/// <param name="Spot">Where the spotlight is, as its middle and radius in 0.01 mm; a radius of 0 is none.</param>
/// <param name="Since">
/// Since when the leader stands there on this connection, UTC milliseconds since 1970. What is heard late of one from before, as from another server, is over.
/// </param>
public sealed record Lectern(Guid Id, DocumentRef Notebook, Guid Page, string[] Lifted, (int X, int Y, int Radius) Spot, long Since)
{
    /// <summary>What devices receive it as.</summary>
    public const string Method = "lectern";

    /// <summary>What they receive once it is closed.</summary>
    public const string ClosedMethod = "lectern-closed";

    /// <summary>What the leader sees, as told last; who comes later is told it.</summary>
    public LiveMessage? View { get; init; }

    /// <summary>What screens in rooms follow, and nobody else: the lectern, as if it were a notebook.</summary>
    public static DocumentRef Room(Guid space, Guid lectern) => new(space, Core.Operations.DocumentKind.Notebook, lectern);

    private DocumentRef OwnRoom => Room(Notebook.Space, Id);

    private DocumentRef Library => DocumentRef.Library(Notebook.Space);

    public static Lectern Of(OpenLectern open, DateTimeOffset since) =>
        new(
            open.Id,
            new DocumentRef(open.Space, Core.Operations.DocumentKind.Notebook, open.Notebook),
            open.Page ?? Guid.Empty,
            [],
            default,
            since.ToUnixTimeMilliseconds()
        );

    /// <summary>That it is closed, for all who may know of it.</summary>
    public static LiveMessage[] Closed(OpenLectern over) =>
        [
            .. new[]
            {
                new DocumentRef(over.Space, Core.Operations.DocumentKind.Notebook, over.Notebook),
                DocumentRef.Library(over.Space),
                Room(over.Space, over.Id),
            }.Select(document => new LiveMessage(document, ClosedMethod, [over.Id.ToString()], 100)),
        ];

    /// <summary>What those in the notebook, those who follow its library, and screens in rooms are told.</summary>
    public LiveMessage[] Told(LiveConnection leader) => [.. Shown(leader), InLibrary(leader)];

    /// <summary>The same where those who follow the library know it already.</summary>
    public LiveMessage[] Shown(LiveConnection leader) => [Message(Notebook, leader), Message(OwnRoom, leader)];

    /// <summary>The same once the leader's connection has gone.</summary>
    public LiveMessage[] Gone(LiveConnection leader) =>
        [.. new[] { Notebook, OwnRoom, Library }.Select(document => Message(document, leader, "", "", [], default))];

    /// <summary>What somebody is told who begins to follow a document; nothing where it is another's.</summary>
    public IEnumerable<LiveMessage> ToldOn(DocumentRef document, LiveConnection leader)
    {
        if (document == Library)
            yield return InLibrary(leader);
        if (document != Notebook && document != OwnRoom)
            yield break;
        yield return Message(document, leader);
        if (View is { } view)
            yield return view with
            {
                Document = document,
            };
    }

    /// <summary>Something that the leader does, for those in the notebook and for the room.</summary>
    public LiveMessage[] ForAll(LiveMessage told) => [told, told with { Document = OwnRoom }];

    /// <summary>Of the library's followers, some may not see the notebook's pages: they are told the notebook.</summary>
    private LiveMessage InLibrary(LiveConnection leader) => Message(Library, leader, Notebook.Id.ToString(), "", [], default);

    private LiveMessage Message(DocumentRef to, LiveConnection leader) =>
        Message(to, leader, Notebook.Id.ToString(), Page == Guid.Empty ? "" : Page.ToString(), Lifted, Spot);

    private LiveMessage Message(
        DocumentRef to,
        LiveConnection leader,
        string notebook,
        string page,
        string[] lifted,
        (int X, int Y, int Radius) spot
    ) =>
        new(
            to,
            Method,
            [leader.Visitor.Person.ToString(), leader.Id, Id.ToString(), notebook, page, lifted, spot.X, spot.Y, spot.Radius, Since],
            250 + 40 * lifted.Length,
            leader.Id
        );
}
