using CalmQuill.Core.Access;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Demo.Hand;
using CalmQuill.Server.People;
using CalmQuill.Store.Documents;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Demo.Scenario;

/// <summary>The Lantern Street Clock Study Group: its people, its library and what they wrote, the same for the same seed.</summary>
/// <param name="people">Where accounts are kept.</param>
/// <param name="spaces">Where spaces are kept.</param>
/// <param name="documents">Where operations are kept.</param>
/// <param name="fonts">The folder with the single-line SVG fonts.</param>
/// <param name="seed">The one source of ids and of the hand's unevenness.</param>
/// <param name="now">The end of the story; what was written lies in the weeks before.</param>
public sealed class LanternStreet(PersonStore people, SpaceStore spaces, DocumentStore documents, string fonts, int seed, DateTimeOffset now)
{
    public const string Password = "lantern-street";

    private static readonly (string Name, string Email, string Colour, string Font, Role Role)[] Cast =
    [
        ("Ines Valder", "ines@lantern.example", "plum", "EMSReadability", Role.Owner),
        ("Tobias Orlen", "tobias@lantern.example", "sky", "EMSTech", Role.Writer),
        ("Maren Kestrup", "maren@lantern.example", "lichen", "EMSElfin", Role.Writer),
        ("Oskar Wiedt", "oskar@lantern.example", "gold", "EMSFelix", Role.Reader),
    ];

    private static readonly (string Name, string Parent, string Colour)[] Folders =
    [
        ("Wednesday class", "", "madder"), ("Escapements", "Wednesday class", "madder"), ("Gear trains", "Wednesday class", "sky"),
        ("Certificate, level 2", "", "plum"), ("Repairs at home", "", "lichen"), ("Finishing", "Wednesday class", "gold"),
    ];

    private readonly Random random = new(seed);
    private readonly List<(Guid Id, SingleLineFont Font)> writers = [];

    /// <summary>Lays everything out. False when it is there already.</summary>
    public async Task<bool> LayOut(CancellationToken cancel)
    {
        if (await people.FindByEmail(Cast[0].Email, cancel) is not null) return false;
        var group = NewId();
        await spaces.MakeGroup(group, "Lantern Street Clock Study Group", cancel);
        var personal = Guid.Empty;
        foreach (var (name, email, colour, font, role) in Cast)
        {
            var person = Accounts.Make(NewId(), email, name, Password, new PasswordHasher<Person>()) with { Colour = colour };
            var own = NewId();
            if (personal == Guid.Empty) personal = own;
            await people.Register(person, own, cancel);
            await spaces.SetRole(group, person.Id, role, cancel);
            writers.Add((person.Id, SingleLineFont.Load(Path.Combine(fonts, font + ".svg"))));
        }

        await Fill(group, ClockPages.Group, Folders, cancel);
        await Fill(personal, ClockPages.Personal, [], cancel);
        return true;
    }

    private async Task Fill(Guid space, IReadOnlyList<ClockPages.Notebook> notebooks, (string Name, string Parent, string Colour)[] folders, CancellationToken cancel)
    {
        var library = new List<Operation>();
        var tidy = NewReplica(0);
        var nodes = new Dictionary<string, Guid> { [""] = Guid.Empty };
        string? order = null;
        void Do(Change change) => library.Add(tidy.Make(change, now.AddDays(-60).ToUnixTimeMilliseconds()));
        void Node(Guid id, NodeKind kind, string parent, string name, string colour)
        {
            order = OrderKey.Between(order, null, (ulong)random.NextInt64());
            Do(new Change.PropertySet(id, Property.Name, name));
            Do(new Change.NodePlaced(id, kind, nodes[parent], order));
            Do(new Change.PropertySet(id, Property.Colour, colour));
        }

        foreach (var (name, parent, colour) in folders) Node(nodes[name] = NewId(), NodeKind.Folder, parent, name, colour);
        var age = 0;
        foreach (var notebook in notebooks)
        {
            var id = NewId();
            Node(id, NodeKind.Notebook, notebook.Folder, notebook.Name, notebook.Colour);
            Do(new Change.PropertySet(id, Property.Cover, notebook.Cover));
            await Write(space, id, notebook, now.AddMinutes(-14).AddHours(-31 * age++), cancel);
        }

        await documents.Append(new DocumentRef(space, DocumentKind.Library, space), library, cancel);
    }

    private async Task Write(Guid space, Guid id, ClockPages.Notebook notebook, DateTimeOffset end, CancellationToken cancel)
    {
        var pages = new List<Operation>();
        string? order = null;
        for (var i = 0; i < notebook.Pages.Count; i++)
        {
            var page = notebook.Pages[i];
            var replica = NewReplica(page.Who);
            var at = end.AddHours(-50 * (notebook.Pages.Count - 1 - i));
            var pageId = NewId();
            order = OrderKey.Between(order, null, (ulong)random.NextInt64());
            pages.Add(replica.Make(new Change.PageAdded(pageId, order, page.Squared ? "a4-squared-500" : "a4-ruled-710"), at.ToUnixTimeMilliseconds()));
            pages.Add(replica.Make(new Change.PropertySet(pageId, Property.Name, page.Title), at.ToUnixTimeMilliseconds()));
            var writer = new PageWriter(replica, writers[page.Who].Font, random, at);
            writer.Title(page.Title);
            foreach (var (line, text) in page.Lines) writer.Line(line, text.TrimStart('?', ' '), text.StartsWith('?') ? PageWriter.Madder : PageWriter.Ink, text.StartsWith(' ') ? 28 : 21);
            page.Draw?.Invoke(writer);
            await documents.Append(new DocumentRef(space, DocumentKind.Page, pageId), writer.Operations, cancel);
            await documents.SnapshotIfDue(pageId, cancel);
        }

        await documents.Append(new DocumentRef(space, DocumentKind.Notebook, id), pages, cancel);
    }

    /// <summary>A device of a person: one a page, since the story jumps about in time.</summary>
    private Replica NewReplica(int who) => new((ulong)random.NextInt64(), writers[who].Id);

    private Guid NewId()
    {
        var bytes = new byte[16];
        random.NextBytes(bytes);
        // Version 8 (RFC 9562 §5.8): made by the application's own rule.
        bytes[6] = (byte)((bytes[6] & 0x0F) | 0x80);
        bytes[8] = (byte)((bytes[8] & 0x3F) | 0x80);
        return new Guid(bytes, bigEndian: true);
    }
}
