using System.Globalization;
using CalmQuill.Core.Access;
using CalmQuill.Core.Assets;
using CalmQuill.Core.Lenses;
using CalmQuill.Core.Library;
using CalmQuill.Core.Links;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Ordering;
using CalmQuill.Core.Spots;
using CalmQuill.Demo.Hand;
using CalmQuill.Server.People;
using CalmQuill.Store;
using CalmQuill.Store.Assets;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Locks;
using CalmQuill.Store.People;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Demo.Scenario;

/// <summary>The Lantern Street Clock Study Group: its people, its library and what they wrote, the same for the same seed.</summary>
/// <param name="people">Where accounts are kept.</param>
/// <param name="spaces">Where spaces are kept.</param>
/// <param name="documents">Where operations are kept.</param>
/// <param name="locks">Where locks are kept.</param>
/// <param name="assets">Where pictures and frozen pages are kept.</param>
/// <param name="invitations">Where invitations are kept.</param>
/// <param name="shares">Where it is kept what is shared with people from outside.</param>
/// <param name="fonts">The folder with the single-line SVG fonts.</param>
/// <param name="seed">The one source of ids and of the hand's unevenness.</param>
/// <param name="now">The end of the story; what was written lies in the weeks before.</param>
public sealed class LanternStreet(
    PersonStore people,
    SpaceStore spaces,
    DocumentStore documents,
    LockStore locks,
    AssetStore assets,
    InvitationStore invitations,
    ShareStore shares,
    string fonts,
    int seed,
    DateTimeOffset now
)
{
    public const string Password = "lantern-street";
    public const string Passphrase = "lamp oil";

    private static readonly (string Name, string Email, string Colour, string Font, Role Role)[] Cast =
    [
        ("Ines Valder", "ines@lantern.example", "plum", "EMSReadability", Role.Owner),
        ("Tobias Orlen", "tobias@lantern.example", "sky", "EMSTech", Role.Writer),
        ("Maren Kestrup", "maren@lantern.example", "lichen", "EMSElfin", Role.Writer),
        ("Oskar Wiedt", "oskar@lantern.example", "gold", "EMSFelix", Role.Reader),
    ];

    private static readonly (string Name, string Parent, string Colour)[] Folders =
    [
        ("Wednesday class", "", "madder"),
        ("Escapements", "Wednesday class", "madder"),
        ("Gear trains", "Wednesday class", "sky"),
        ("Certificate, level 2", "", "plum"),
        ("Repairs at home", "", "lichen"),
        ("Finishing", "Wednesday class", "gold"),
    ];

    private readonly Dictionary<string, Guid> tags = [];
    private readonly Dictionary<string, Guid> folderIds = [];
    private readonly Dictionary<string, Guid> notebookIds = [];
    private readonly Dictionary<(string Notebook, string Page), Guid> pageIds = [];
    private Guid ownKind;
    private readonly Random random = new(seed);
    private readonly List<(Guid Id, SingleLineFont Font)> writers = [];

    /// <summary>Lays everything out. False when it is there already.</summary>
    public async Task<bool> LayOut(CancellationToken cancel)
    {
        if (await people.FindByEmail(Cast[0].Email, cancel) is not null)
            return false;
        var group = NewId();
        await spaces.MakeGroup(group, "Lantern Street Clock Study Group", cancel, "spruce");
        var personal = Guid.Empty;
        foreach (var (name, email, colour, font, role) in Cast)
        {
            var person = Accounts.Make(NewId(), email, name, Password, new PasswordHasher<Person>()) with { Colour = colour };
            var own = NewId();
            if (personal == Guid.Empty)
                personal = own;
            await people.Register(person, own, cancel);
            await spaces.SetRole(group, person.Id, role, cancel);
            writers.Add((person.Id, SingleLineFont.Load(Path.Combine(fonts, font + ".svg"))));
        }

        var made = await Fill(group, ClockPages.Group, Folders, cancel);
        var order = new WorkshopPapers(documents, assets, group, writers[0].Id, random, now);
        await order.LayOut(made, pageIds[("Repair sheets", "Mantel clock no. 21")], cancel);
        await Fill(personal, ClockPages.Personal, [], cancel);
        await Fill(personal, ClockPages.Jots, [], cancel, jots: true);
        var locked = (await Fill(personal, ClockPages.Locked, [], cancel)).Values.Single();
        await locks.Set(
            new NotebookLock(locked, personal, new PasswordHasher<Person>().HashPassword(null!, Passphrase), writers[0].Id, 15),
            cancel
        );
        await LiveIn(personal, group, made, cancel);
        var keepers = await Knock(group, cancel);
        await Give(keepers, group, personal, made, cancel);
        var talk = new ClassTalk(documents, group, pageIds, writers, random, now);
        await talk.Answer(cancel);
        var past = new ClassPast(
            documents,
            group,
            made["Anchor and deadbeat"],
            pageIds[("Anchor and deadbeat", "The anchor escapement")],
            NewId(),
            writers,
            random,
            now
        );
        await past.Happen(cancel);
        await talk.NoteAside(made["Anchor and deadbeat"], personal, cancel);
        await new ClassSlides(documents, assets, group, writers, seed, now).BringIn(
            folderIds["Escapements"],
            folderIds["Repairs at home"],
            cancel
        );
        return true;
    }

    /// <summary>Somebody asks to be let in, and Tobias invites Ines into another group of his.</summary>
    private async Task<Guid> Knock(Guid group, CancellationToken cancel)
    {
        var juri = Accounts.Make(NewId(), "juri@lantern.example", "Juri Onken", Password, new PasswordHasher<Person>()) with
        {
            Colour = "madder",
        };
        await people.Register(juri, NewId(), cancel);
        var secret = Secrets.Draw();
        await invitations.WriteLink(
            group,
            writers[0].Id,
            new Invitation(Role.Writer, 1, 14, true),
            null,
            secret,
            [0],
            "",
            false,
            now,
            cancel
        );
        await invitations.Join(secret, juri.Id, false, now, cancel);
        // The link itself was for one, and is not shown.
        await invitations.TakeBack(group, (await invitations.Of(group, cancel)).Single().Id, cancel);

        var keepers = NewId();
        await spaces.MakeGroup(keepers, "Harbour Tower Clock Keepers", cancel, "gold");
        await spaces.SetRole(keepers, writers[1].Id, Role.Owner, cancel);
        await invitations.WriteFor(writers[0].Id, keepers, writers[1].Id, new Invitation(Role.Writer, 1, 14, false), now, cancel);
        return keepers;
    }

    /// <summary>The tower clock's folder is shared with Ines, her bench notes with Maren for a while, and one notebook with Juri, who is not in the group yet.</summary>
    private async Task Give(Guid keepers, Guid group, Guid personal, Dictionary<string, Guid> notebooks, CancellationToken cancel)
    {
        await Fill(keepers, ClockPages.Keepers, [("Tower clock", "", "gold")], cancel, isClass: false);
        var juri = (await people.FindByEmail("juri@lantern.example", cancel))!.Id;
        foreach (
            var (space, node, to, writes, by, days) in new[]
            {
                (keepers, folderIds["Tower clock"], writers[0].Id, true, writers[1].Id, 0),
                (personal, notebookIds["At my own bench"], writers[2].Id, false, writers[0].Id, 30),
                (group, notebooks["Going train"], juri, false, writers[0].Id, 0),
            }
        )
            await shares.Make(
                new MadeShare(space, node, null, ShareWith.Person, to, null, null, writes, false, by, days == 0 ? null : now.AddDays(days)),
                cancel
            );
    }

    /// <summary>What Ines has starred, opened often, and looks at in her own way.</summary>
    private async Task LiveIn(Guid personal, Guid group, Dictionary<string, Guid> notebooks, CancellationToken cancel)
    {
        var device = NewReplica(0);
        var own = new List<Operation>();
        foreach (var name in new[] { "Anchor and deadbeat", "Certificate preparation" })
            own.Add(device.Make(new Change.PropertySet(notebooks[name], Property.Starred, "1"), now.AddDays(-3).ToUnixTimeMilliseconds()));
        foreach (
            var (notebook, page) in new[]
            {
                ("Anchor and deadbeat", "Depth and drop"),
                ("Anchor and deadbeat", "Why it recoils"),
                ("Certificate preparation", "Oil"),
            }
        )
            own.Add(
                device.Make(
                    new Change.PropertySet(pageIds[(notebook, page)], Property.Bookmarked, notebooks[notebook].ToString()),
                    now.AddDays(-2).ToUnixTimeMilliseconds()
                )
            );
        foreach (
            var (name, times) in new[]
            {
                ("Anchor and deadbeat", 9),
                ("Bench log, autumn", 5),
                ("Certificate preparation", 4),
                ("Class notebook", 2),
                ("Going train", 1),
            }
        )
        {
            for (var i = 0; i < times; i++)
                own.Add(device.Make(new Change.Visited(group, notebooks[name]), now.AddDays(-2 * (times - i)).ToUnixTimeMilliseconds()));
        }

        await documents.Append(new DocumentRef(personal, DocumentKind.Library, personal), own, cancel);
    }

    private async Task<Dictionary<string, Guid>> Fill(
        Guid space,
        IReadOnlyList<ClockPages.Notebook> notebooks,
        (string Name, string Parent, string Colour)[] folders,
        CancellationToken cancel,
        bool jots = false,
        bool isClass = true
    )
    {
        var made = new Dictionary<string, Guid>();
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
            if (colour.Length > 0)
                Do(new Change.PropertySet(id, Property.Colour, colour));
        }

        foreach (var (name, parent, colour) in folders)
            Node(folderIds[name] = nodes[name] = NewId(), NodeKind.Folder, parent, name, colour);
        if (folders.Length > 0 && isClass)
        {
            foreach (var (path, colour) in Tidying.Tags)
            {
                var slash = path.LastIndexOf('/');
                Node(tags[path] = NewId(), NodeKind.Tag, "", path[(slash + 1)..], colour);
                if (slash > 0)
                    Do(new Change.NodePlaced(tags[path], NodeKind.Tag, tags[path[..slash]], order!));
            }

            foreach (var (name, icon, rule) in Tidying.Lenses(path => tags[path]))
            {
                var lens = NewId();
                Node(lens, NodeKind.Lens, "", name, "");
                Do(new Change.PropertySet(lens, Property.Icon, icon));
                Do(new Change.PropertySet(lens, Property.Rule, RuleJson.Write(rule)));
            }
        }

        // Links name pages that are written later.
        foreach (var given in notebooks.Where(given => given.Name.Length > 0))
        {
            notebookIds[given.Name] = NewId();
            foreach (var page in given.Pages)
                pageIds[(given.Name, page.Title)] = NewId();
        }

        if (folders.Length > 0 && isClass)
        {
            Node(ownKind = NewId(), NodeKind.MarkKind, "", "Measure again", "sky");
            Do(new Change.PropertySet(ownKind, Property.Icon, "compass"));
        }

        var age = jots ? 1 : 0;
        foreach (var given in notebooks)
        {
            var id = notebookIds.TryGetValue(given.Name, out var known) ? known : NewId();
            var end = now.AddMinutes(-14).AddHours(-31 * age++);
            var notebook = jots ? given with { Name = end.ToString("d MMMM yyyy, HH:mm", CultureInfo.InvariantCulture) } : given;
            Node(id, NodeKind.Notebook, notebook.Folder, notebook.Name, notebook.Colour);
            made[notebook.Name] = id;
            Do(new Change.PropertySet(id, Property.Cover, notebook.Cover));
            if (jots)
                Do(new Change.PropertySet(id, Property.Jot, "1"));
            if (Tidying.Pinned.Contains(notebook.Name))
                Do(new Change.PropertySet(id, Property.Pinned, "1"));
            if (Tidying.Binned.Contains(notebook.Name))
                Do(
                    new Change.PropertySet(
                        id,
                        Property.Binned,
                        now.AddDays(-2).ToUnixTimeMilliseconds().ToString(CultureInfo.InvariantCulture)
                    )
                );
            foreach (var tag in Tidying.OnNotebooks.GetValueOrDefault(notebook.Name, []))
                Do(new Change.TagSet(id, tags[tag], true));
            await Write(space, id, notebook, end, cancel);
        }

        await documents.Append(new DocumentRef(space, DocumentKind.Library, space), library, cancel);
        return made;
    }

    private async Task Write(Guid space, Guid id, ClockPages.Notebook notebook, DateTimeOffset end, CancellationToken cancel)
    {
        var pages = new List<Operation>();
        string? order = null;
        var tidy = NewReplica(0);
        var sections = new List<(Guid Id, Tidying.Section Section)>();
        void Do(Change change) => pages.Add(tidy.Make(change, end.ToUnixTimeMilliseconds()));
        foreach (var section in Tidying.Sections.GetValueOrDefault(notebook.Name, []))
        {
            sections.Add((NewId(), section));
            order = OrderKey.Between(order, null, (ulong)random.NextInt64());
            Do(new Change.PropertySet(sections[^1].Id, Property.Name, section.Title));
            Do(new Change.PropertySet(sections[^1].Id, Property.Colour, section.Colour));
            Do(new Change.NodePlaced(sections[^1].Id, NodeKind.Section, Guid.Empty, order));
        }

        for (var i = 0; i < notebook.Pages.Count; i++)
        {
            var page = notebook.Pages[i];
            var replica = NewReplica(page.Who);
            var at = end.AddHours(-50 * (notebook.Pages.Count - 1 - i));
            var pageId = pageIds.GetValueOrDefault((notebook.Name, page.Title), default);
            if (pageId == default)
                pageId = NewId();
            order = OrderKey.Between(order, null, (ulong)random.NextInt64());
            pages.Add(
                replica.Make(
                    new Change.PageAdded(
                        pageId,
                        order,
                        page.Paper.Length > 0 ? page.Paper
                            : page.Squared ? "a4-squared-500"
                            : "a4-ruled-710"
                    ),
                    at.ToUnixTimeMilliseconds()
                )
            );
            if (page.Title.Length > 0)
                pages.Add(replica.Make(new Change.PropertySet(pageId, Property.Name, page.Title), at.ToUnixTimeMilliseconds()));
            if (sections.Find(one => i >= one.Section.First && i < one.Section.First + one.Section.Count) is { Section: not null } holder)
                Do(new Change.NodePlaced(pageId, NodeKind.Page, holder.Id, order));
            foreach (var tag in Tidying.OnPages.GetValueOrDefault(page.Title, []))
                Do(new Change.TagSet(pageId, tags[tag], true));
            var writer = new PageWriter(replica, writers[page.Who].Font, random, at);
            if (page.Title.Length > 0)
                writer.Title(page.Title);
            foreach (var (line, text) in page.Lines)
                Say(writer, space, page, line, text);
            page.Draw?.Invoke(writer);
            if (LessonLines.Of.TryGetValue((notebook.Name, page.Title), out var more))
                for (var k = 0; k < more.Lines.Length; k++)
                    writer.Lesson(more.First + k, more.Lines[k]);
            foreach (var file in writer.Files)
            {
                var type = FileType.Of(file);
                await assets.Add(
                    new Asset(AssetId.Of(file), space, type.MediaType, type.Width, type.Height, file, writers[page.Who].Id),
                    cancel
                );
            }

            await documents.Append(new DocumentRef(space, DocumentKind.Page, pageId), writer.Operations, cancel);
            await documents.SnapshotIfDue(DocumentRef.Page(space, pageId), cancel);
        }

        await documents.Append(new DocumentRef(space, DocumentKind.Notebook, id), pages, cancel);
    }

    /// <summary>Writes a line, and makes of it what its first letter says.</summary>
    private void Say(PageWriter writer, Guid space, ClockPages.Page page, double line, string text)
    {
        var first = writer.Operations.Count;
        var sign = text.Length > 0 && "?!~=#>".Contains(text[0], StringComparison.Ordinal) ? text[0] : ' ';
        var bar = text.IndexOf('|', StringComparison.Ordinal);
        var words = sign == '>' ? text[(bar + 1)..] : text.TrimStart('?', '!', '~', '=', '#', ' ');
        var isStep = text.StartsWith("   ", StringComparison.Ordinal) || text.StartsWith("~  ", StringComparison.Ordinal);
        writer.Line(
            line,
            words,
            sign switch
            {
                '?' => PageWriter.Madder,
                '>' => PageWriter.Sky,
                _ => PageWriter.Ink,
            },
            isStep ? 28 : 21
        );
        switch (sign)
        {
            case '#':
                writer.Spot(first, SpotKind.Heading, new SpotValue(SpotField.Level, "1"));
                break;
            case '>':
                var parts = text[1..bar].Split('/');
                var target = new LinkTarget
                {
                    Kind = "page",
                    Space = space,
                    Notebook = notebookIds[parts[0]],
                    Page = pageIds[(parts[0], parts[1])],
                };
                writer.Spot(
                    first,
                    SpotKind.Link,
                    new SpotValue(SpotField.Target, target.ToString()),
                    new SpotValue(SpotField.Title, $"{parts[0]}, {parts[1]}")
                );
                break;
            case not ' ':
                var kind = sign switch
                {
                    '?' => MarkKinds.Ask,
                    '!' => MarkKinds.KeyPoint,
                    '~' => MarkKinds.ToDo,
                    _ => ownKind.ToString(),
                };
                List<SpotValue> values = [new SpotValue(SpotField.Mark, kind)];
                // What somebody asked is for one of the others; some things are due.
                if (sign == '?')
                    values.Add(new SpotValue(SpotField.Person, writers[(page.Who + 1) % 3].Id.ToString()));
                if (sign == '~')
                    values.Add(
                        new SpotValue(SpotField.Due, now.AddDays(random.Next(-4, 15)).ToString("yyyy-MM-dd", CultureInfo.InvariantCulture))
                    );
                var mark = writer.Spot(first, SpotKind.Mark, [.. values]);
                if (sign == '?' && random.Next(3) == 0)
                    writer.Done(mark);
                break;
        }
    }

    /// <summary>A device of a person: one a page, since the story jumps about in time.</summary>
    private Replica NewReplica(int who) => new((ulong)random.NextInt64(), writers[who].Id);

    private Guid NewId() => random.NextId();
}
