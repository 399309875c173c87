using System.Net;
using System.Net.Http.Json;
using CalmQuill.Core.Access;
using CalmQuill.Core.Ink;
using CalmQuill.Core.Library;
using CalmQuill.Core.Operations;
using CalmQuill.Core.Pages;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Spaces;
using CalmQuill.Testing;
using Microsoft.AspNetCore.Routing;
using Microsoft.AspNetCore.SignalR;
using Microsoft.AspNetCore.SignalR.Client;
using Microsoft.Extensions.DependencyInjection;
using Person = CalmQuill.Store.People.Person;

namespace CalmQuill.Server.Tests;

/// <summary>
/// No one reads or writes what the roles do not allow: every endpoint and hub method against owner, writer, reader, a stranger who knows the ids, somebody signed out, a member of
/// another space who names the ids in it, and the owner where the notebook is locked.
/// </summary>
public sealed class RolesTests : IAsyncLifetime
{
    private const int Ok = 200,
        Done = 204,
        Bad = 400,
        SignedOut = 401,
        Forbidden = 403,
        NotHere = 404,
        Taken = 409,
        Locked = 423;
    private readonly Guid page = Guid.NewGuid(),
        notebook = Guid.NewGuid(),
        lockedNotebook = Guid.NewGuid(),
        lockedPage = Guid.NewGuid(),
        foreign = Guid.NewGuid(),
        spare = Guid.NewGuid();
    private QuillHost host = null!;
    private QuillHost.Group group = null!;
    private Caller[] callers = [];

    /// <summary>
    /// Endpoint, method and path, then the status for owner, writer, reader, a stranger who knows the ids, signed out; then for a member of another space who names the ids as that
    /// space's, and for the owner who asks the same of a locked notebook. Where the answer of the last two is <see cref="Ok"/>, nothing of the inside is in it.
    /// </summary>
    private static readonly (string Endpoint, string Method, string Path, int[] Expected, int Naming, int OfLocked)[] Table =
    [
        ("/health", "GET", "/health", [Ok, Ok, Ok, Ok, Ok], Ok, Ok),
        ("/api/session", "GET", "/api/session", [Ok, Ok, Ok, Ok, Ok], Ok, Ok),
        ("/api/devices", "GET", "/api/devices", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/devices/{session:guid}", "DELETE", "/api/devices/{page}", [NotHere, NotHere, NotHere, NotHere, SignedOut], NotHere, NotHere),
        ("/api/spaces/{space:guid}/members/", "GET", "/api/spaces/{space}/members", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        (
            "/api/spaces/{space:guid}/members/{person:guid}",
            "PUT",
            "/api/spaces/{space}/members/{writer}",
            [Done, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            Done
        ),
        ("/api/spaces/{space:guid}/members/pages", "GET", "/api/spaces/{space}/members/pages", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/guests", "GET", "/api/spaces/{space}/guests", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/shares/", "GET", "/api/spaces/{space}/shares", [Ok, Ok, Forbidden, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/shares/", "POST", "/api/spaces/{space}/shares", [Bad, Bad, Forbidden, NotHere, SignedOut], Bad, Bad),
        (
            "/api/spaces/{space:guid}/shares/{share:guid}",
            "DELETE",
            "/api/spaces/{space}/shares/{page}",
            [NotHere, NotHere, Forbidden, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/people",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/people?of={writer}",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        ("/api/shared/", "GET", "/api/shared", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/shared/{share:guid}", "DELETE", "/api/shared/{page}", [NotHere, NotHere, NotHere, NotHere, SignedOut], NotHere, NotHere),
        ("/api/sharing/look", "POST", "/api/sharing/look", [NotHere, NotHere, NotHere, NotHere, NotHere], NotHere, NotHere),
        ("/api/sharing/come", "POST", "/api/sharing/come", [NotHere, NotHere, NotHere, NotHere, SignedOut], NotHere, NotHere),
        ("/api/sharing/page", "POST", "/api/sharing/page", [NotHere, NotHere, NotHere, NotHere, NotHere], NotHere, NotHere),
        ("/api/sharing/copy", "POST", "/api/sharing/copy", [NotHere, NotHere, NotHere, NotHere, NotHere], NotHere, NotHere),
        ("/api/room", "POST", "/api/room", [NotHere, NotHere, NotHere, NotHere, NotHere], NotHere, NotHere),
        // The writer opens one first, and it is theirs.
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/lectern/",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/lectern",
            [Done, Done, Done, NotHere, SignedOut],
            Done,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/lectern/",
            "POST",
            "/api/spaces/{space}/notebooks/{notebook}/lectern",
            [Taken, Ok, Forbidden, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/lectern/room",
            "POST",
            "/api/spaces/{space}/notebooks/{notebook}/lectern/room",
            [NotHere, Ok, Forbidden, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/lectern/",
            "DELETE",
            "/api/spaces/{space}/notebooks/{notebook}/lectern",
            [Done, Done, Forbidden, NotHere, SignedOut],
            Done,
            Locked
        ),
        // Empty forms: whoever is let in gets as far as being told that a group needs a name, that nobody was named, and that no secret was given.
        ("/api/groups/", "POST", "/api/groups", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/groups/dissolved", "GET", "/api/groups/dissolved", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        (
            "/api/groups/dissolved/{space:guid}",
            "POST",
            "/api/groups/dissolved/{space}",
            [NotHere, NotHere, NotHere, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        ("/api/spaces/{space:guid}/group/", "PUT", "/api/spaces/{space}/group", [Bad, Forbidden, Forbidden, NotHere, SignedOut], Bad, Bad),
        (
            "/api/spaces/{space:guid}/group/heir",
            "POST",
            "/api/spaces/{space}/group/heir",
            [NotHere, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            NotHere
        ),
        (
            "/api/spaces/{space:guid}/invitations/",
            "GET",
            "/api/spaces/{space}/invitations",
            [Ok, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/invitations/",
            "POST",
            "/api/spaces/{space}/invitations",
            [Ok, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/invitations/{invitation:guid}",
            "DELETE",
            "/api/spaces/{space}/invitations/{page}",
            [NotHere, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            NotHere
        ),
        (
            "/api/spaces/{space:guid}/requests/{person:guid}",
            "POST",
            "/api/spaces/{space}/requests/{writer}",
            [Done, Forbidden, Forbidden, NotHere, SignedOut],
            Bad,
            Done
        ),
        ("/api/joining/look", "POST", "/api/joining/look", [NotHere, NotHere, NotHere, NotHere, NotHere], NotHere, NotHere),
        ("/api/joining", "POST", "/api/joining", [NotHere, NotHere, NotHere, NotHere, SignedOut], NotHere, NotHere),
        ("/api/door/", "GET", "/api/door", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/door/{invitation:guid}", "POST", "/api/door/{page}", [Done, Done, Done, Done, SignedOut], Done, Done),
        ("/api/spaces/{space:guid}/usage", "GET", "/api/spaces/{space}/usage", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        (
            "/api/spaces/{space:guid}/documents/{kind}/{id:guid}/operations/",
            "GET",
            "/api/spaces/{space}/documents/page/{page}/operations",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/documents/{kind}/{id:guid}/operations/",
            "GET",
            "/api/spaces/{space}/documents/notebook/{notebook}/operations",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/documents/{kind}/{id:guid}/operations/",
            "POST",
            "/api/spaces/{space}/documents/page/{page}/operations",
            // Who reads answers to marks; whatever else they send is refused by itself.
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Ok
        ),
        ("/api/spaces/{space:guid}/summaries", "GET", "/api/spaces/{space}/summaries", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        (
            "/api/spaces/{space:guid}/strips",
            "GET",
            "/api/spaces/{space}/strips?notebooks={notebook}",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Ok
        ),
        ("/api/spaces/{space:guid}/bin", "GET", "/api/spaces/{space}/bin", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/bin/times", "GET", "/api/spaces/{space}/bin/times", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/entries", "POST", "/api/spaces/{space}/entries", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/tag-uses", "GET", "/api/spaces/{space}/tag-uses", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/copies", "POST", "/api/spaces/{space}/copies", [Ok, Ok, Forbidden, NotHere, SignedOut], Ok, Locked),
        ("/api/desk", "GET", "/api/desk", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/often", "GET", "/api/often", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/locks/", "GET", "/api/spaces/{space}/locks", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        // The notebook that is locked already: who may lock is told so. The other space's member names it in a library of their own, and locks nothing but that.
        (
            "/api/spaces/{space:guid}/locks/{notebook:guid}",
            "PUT",
            "/api/spaces/{space}/locks/{locked}",
            [Taken, Forbidden, Forbidden, NotHere, SignedOut],
            NotHere,
            Taken
        ),
        (
            "/api/spaces/{space:guid}/locks/{notebook:guid}/open",
            "POST",
            "/api/spaces/{space}/locks/{locked}/open",
            [Bad, Bad, Bad, NotHere, SignedOut],
            NotHere,
            Bad
        ),
        (
            "/api/spaces/{space:guid}/locks/{notebook:guid}/shut",
            "POST",
            "/api/spaces/{space}/locks/{locked}/shut",
            [Done, Done, Done, NotHere, SignedOut],
            NotHere,
            Done
        ),
        (
            "/api/spaces/{space:guid}/locks/{notebook:guid}/remove",
            "POST",
            "/api/spaces/{space}/locks/{locked}/remove",
            [Bad, Forbidden, Forbidden, NotHere, SignedOut],
            NotHere,
            Bad
        ),
        (
            "/api/spaces/{space:guid}/pages/{page:guid}/thumbnail.svg",
            "GET",
            "/api/spaces/{space}/pages/{page}/thumbnail.svg",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/pages/{page:guid}/export.pdf",
            "GET",
            "/api/spaces/{space}/pages/{page}/export.pdf",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/pages/{page:guid}/export.svg",
            "GET",
            "/api/spaces/{space}/pages/{page}/export.svg",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/asides/{page:guid}/export.pdf",
            "GET",
            "/api/asides/{page}/export.pdf",
            [NotHere, NotHere, NotHere, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        (
            "/api/asides/{page:guid}/export.svg",
            "GET",
            "/api/asides/{page}/export.svg",
            [NotHere, NotHere, NotHere, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/export.pdf",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/export.pdf",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Taken,
            Locked
        ),
        ("/api/follow-ups", "GET", "/api/follow-ups", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/follow-ups.md", "POST", "/api/follow-ups.md", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/follow-ups.csv", "POST", "/api/follow-ups.csv", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/deeds", "GET", "/api/spaces/{space}/deeds", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/spaces/{space:guid}/chart", "GET", "/api/spaces/{space}/chart", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/chart",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/chart",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/then",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/then?at=1700000000000",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/deeds",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/deeds",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/spots",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/spots",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/pages",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/pages",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        ("/api/spaces/{space:guid}/headings", "GET", "/api/spaces/{space}/headings?titled=a", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        (
            "/api/spaces/{space:guid}/links",
            "GET",
            "/api/spaces/{space}/links?notebooks={notebook}",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/backlinks",
            "GET",
            "/api/spaces/{space}/backlinks?notebook={notebook}",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/pages/{page:guid}/part.svg",
            "GET",
            "/api/spaces/{space}/pages/{page}/part.svg?area=0,0,5000,2000",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        (
            "/api/spaces/{space:guid}/assets/{asset:guid}/received",
            "GET",
            "/api/spaces/{space}/assets/{asset}/received",
            [Ok, Ok, Forbidden, NotHere, SignedOut],
            Ok,
            Ok
        ),
        // An empty body: whoever may write gets as far as being told that it is no piece.
        (
            "/api/spaces/{space:guid}/assets/{asset:guid}/pieces/{at:long}",
            "PUT",
            "/api/spaces/{space}/assets/{asset}/pieces/0?of=10",
            [Bad, Bad, Forbidden, NotHere, SignedOut],
            Bad,
            Bad
        ),
        (
            "/api/spaces/{space:guid}/assets/{asset:guid}/picture",
            "GET",
            "/api/spaces/{space}/assets/{asset}/picture",
            [Ok, Ok, Ok, NotHere, SignedOut],
            NotHere,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/assets/{asset:guid}",
            "GET",
            "/api/spaces/{space}/assets/{asset}",
            [Ok, Ok, Ok, NotHere, SignedOut],
            NotHere,
            Ok
        ),
        (
            "/api/spaces/{space:guid}/notebooks/{notebook:guid}/assets",
            "GET",
            "/api/spaces/{space}/notebooks/{notebook}/assets",
            [Ok, Ok, Ok, NotHere, SignedOut],
            Ok,
            Locked
        ),
        ("/api/spaces/{space:guid}/paper-uses", "GET", "/api/spaces/{space}/paper-uses", [Ok, Ok, Ok, NotHere, SignedOut], Ok, Ok),
        ("/api/calendar-entries", "POST", "/api/calendar-entries", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/previews", "POST", "/api/previews", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/unlocked-files", "POST", "/api/unlocked-files", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/invitations", "POST", "/api/invitations", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/people/me", "PUT", "/api/people/me", [Done, Done, Done, Done, SignedOut], Done, Done),
        ("/api/people/me/digest", "GET", "/api/people/me/digest", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/people/me/digest", "PUT", "/api/people/me/digest", [Done, Done, Done, Done, SignedOut], Done, Done),
        ("/api/people/me/everything.zip", "GET", "/api/people/me/everything.zip", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/people/me/leaving", "GET", "/api/people/me/leaving", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        // An empty form: whoever is signed in gets as far as the wrong password.
        ("/api/people/me/leaving", "POST", "/api/people/me/leaving", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/people/me/password", "PUT", "/api/people/me/password", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/people/me/password/check", "POST", "/api/people/me/password/check", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/faults", "POST", "/api/faults", [Done, Done, Done, Done, SignedOut], Done, Done),
        ("/api/people/me/second-factor", "POST", "/api/people/me/second-factor", [Ok, Ok, Ok, Ok, SignedOut], Ok, Ok),
        ("/api/people/me/second-factor", "PUT", "/api/people/me/second-factor", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/people/me/second-factor/off", "POST", "/api/people/me/second-factor/off", [Bad, Bad, Bad, Bad, SignedOut], Bad, Bad),
        ("/api/people", "POST", "/api/people", [Bad, Bad, Bad, Bad, Bad], Bad, Bad),
        ("/api/people/confirmations", "POST", "/api/people/confirmations", [Bad, Bad, Bad, Bad, Bad], Bad, Bad),
        ("/api/people/forgotten", "POST", "/api/people/forgotten", [Bad, Bad, Bad, Bad, Bad], Bad, Bad),
        ("/api/people/passwords", "POST", "/api/people/passwords", [Bad, Bad, Bad, Bad, Bad], Bad, Bad),
        ("/api/session", "POST", "/api/session", [SignedOut, SignedOut, SignedOut, SignedOut, SignedOut], SignedOut, SignedOut),
        // The last owner stays; the group that all are asked about is dissolved by the last that is asked.
        (
            "/api/spaces/{space:guid}/group/me",
            "DELETE",
            "/api/spaces/{spare}/group/me",
            [Taken, Done, Done, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        (
            "/api/spaces/{space:guid}/group/",
            "DELETE",
            "/api/spaces/{space}/group",
            [Done, Forbidden, Forbidden, NotHere, SignedOut],
            NotHere,
            NotHere
        ),
        ("/api/devices", "DELETE", "/api/devices", [Done, Done, Done, Done, SignedOut], Done, Done),
        ("/api/session", "DELETE", "/api/session", [Done, Done, Done, Done, Done], Done, Done),
    ];

    private Guid asset,
        lockedAsset;

    public async Task InitializeAsync()
    {
        host = await QuillHost.Start();
        group = await host.MakeGroup();
        await SpareGroup();
        callers =
        [
            .. await Task.WhenAll(new[] { group.Owner, group.Writer, group.Reader, group.Stranger }.Select(host.SignIn)),
            await Caller.SignedOut(host.Address),
        ];
        var device = new Replica(1, group.Owner.Id);
        await callers[0]
            .Send(
                group.Space,
                DocumentKind.Library,
                group.Space,
                device.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), 1),
                device.Make(new Change.NodePlaced(lockedNotebook, NodeKind.Notebook, Guid.Empty, "W"), 1)
            );
        foreach (var (into, inside, words) in new[] { (notebook, page, "open words"), (lockedNotebook, lockedPage, "secret words") })
        {
            await callers[0]
                .Send(
                    group.Space,
                    DocumentKind.Notebook,
                    into,
                    device.Make(new Change.PropertySet(inside, Property.Name, words), 1),
                    device.Make(new Change.PageAdded(inside, "V", "a4-ruled-710"), 1),
                    device.Make(new Change.PropertySet(Section(into), Property.Name, words), 1),
                    device.Make(new Change.NodePlaced(Section(into), NodeKind.Section, Guid.Empty, "X"), 1)
                );
            (
                await callers[0].Send(group.Space, DocumentKind.Page, inside, device.Make(Stroke(), 1), device.Make(Mark(words), 1))
            ).EnsureSuccessStatusCode();
        }

        asset = await Freeze(page);
        lockedAsset = asset;
        (
            await callers[0]
                .Http.PutAsJsonAsync($"/api/spaces/{group.Space}/locks/{lockedNotebook}", new { passphrase = "a-passphrase", minutes = 5 })
        ).EnsureSuccessStatusCode();
        // The stranger names all of it in the library of their own space, and in a notebook there.
        var own = await OwnSpace(callers[3]);
        var theirs = new Replica(2, group.Stranger.Id);
        await callers[3]
            .Send(
                own,
                DocumentKind.Library,
                own,
                theirs.Make(new Change.NodePlaced(notebook, NodeKind.Notebook, Guid.Empty, "V"), 1),
                theirs.Make(new Change.NodePlaced(foreign, NodeKind.Notebook, Guid.Empty, "V"), 1)
            );
        await callers[3]
            .Send(
                own,
                DocumentKind.Notebook,
                foreign,
                theirs.Make(new Change.PageAdded(page, "V", "a4-ruled-710"), 1),
                theirs.Make(new Change.PageAdded(lockedPage, "W", "a4-ruled-710"), 1)
            );
    }

    /// <summary>Another group of the same people.</summary>
    private async Task SpareGroup()
    {
        var spaces = host.Services.GetRequiredService<SpaceStore>();
        await spaces.MakeGroup(spare, "Spare", default);
        foreach (var (person, role) in new[] { (group.Owner, Role.Owner), (group.Writer, Role.Writer), (group.Reader, Role.Reader) })
            Assert.True(await spaces.SetRole(spare, person.Id, role, default));
    }

    public async Task DisposeAsync()
    {
        foreach (var caller in callers)
            caller.Dispose();
        await host.DisposeAsync();
    }

    [Fact]
    public async Task Every_endpoint_lets_in_whom_the_table_says()
    {
        var wrong = new List<string>();
        foreach (var (_, method, path, expected, _, _) in Table)
        {
            // Whoever may most comes last, and takes from nobody what they are asked about.
            for (var i = callers.Length - 1; i >= 0; i--)
            {
                var (status, _) = await Ask(callers[i], method, path, group.Space, notebook, page, asset);
                if (status != expected[i])
                    wrong.Add($"{method} {path} as {i}: {status}, not {expected[i]}");
            }
        }

        Assert.Empty(wrong);
    }

    /// <summary>What a guest who may read, and one who may write, is answered otherwise than a stranger: what concerns the notebook that was shared, and nothing of its library.</summary>
    private static readonly Dictionary<string, (int Reading, int Writing)> OfGuests = new()
    {
        ["GET /api/spaces/{space}/notebooks/{notebook}/deeds"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/chart"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/then?at=1700000000000"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/lectern"] = (Done, Done),
        ["GET /api/spaces/{space}/documents/page/{page}/operations"] = (Ok, Ok),
        ["GET /api/spaces/{space}/documents/notebook/{notebook}/operations"] = (Ok, Ok),
        ["POST /api/spaces/{space}/documents/page/{page}/operations"] = (Ok, Ok),
        ["GET /api/spaces/{space}/pages/{page}/thumbnail.svg"] = (Ok, Ok),
        ["GET /api/spaces/{space}/pages/{page}/export.pdf"] = (Ok, Ok),
        ["GET /api/spaces/{space}/pages/{page}/export.svg"] = (Ok, Ok),
        ["GET /api/spaces/{space}/pages/{page}/part.svg?area=0,0,5000,2000"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/export.pdf"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/spots"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/pages"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/assets"] = (Ok, Ok),
        ["GET /api/spaces/{space}/notebooks/{notebook}/people?of={writer}"] = (Ok, Ok),
    };

    [Theory]
    [InlineData(false)]
    [InlineData(true)]
    public async Task A_guest_is_let_into_what_was_shared_and_is_a_stranger_to_everything_else(bool writes)
    {
        var guest = await Share(notebook, writes);
        var wrong = new List<string>();
        foreach (var (_, method, path, expected, _, _) in Table)
        {
            var wished = OfGuests.TryGetValue($"{method} {path}", out var as_) ? (writes ? as_.Writing : as_.Reading) : expected[3];
            var (status, _) = await Ask(guest, method, path, group.Space, notebook, page, asset);
            if (status != wished)
                wrong.Add($"{method} {path}: {status}, not {wished}");
        }

        Assert.Empty(wrong);
        Assert.Equal([], OfGuests.Keys.Except(Table.Select(row => $"{row.Method} {row.Path}")));
    }

    /// <summary>Shared before it was locked: the lock shuts guests out, whatever was said to them.</summary>
    [Fact]
    public async Task A_guest_sees_nothing_of_a_locked_notebook_nor_of_one_that_was_not_shared()
    {
        foreach (var shared in new[] { lockedNotebook, notebook })
        {
            var guest = await Share(shared, true);
            var wrong = new List<string>();
            foreach (var (_, method, path, expected, _, _) in Table.Where(row => row.Method != "DELETE"))
            {
                var (status, body) = await Ask(guest, method, path, group.Space, lockedNotebook, lockedPage, lockedAsset);
                if (status != expected[3])
                    wrong.Add($"{method} {path}: {status}, not {expected[3]}");
                if (Reveals(body, "secret words", lockedPage.ToString(), Section(lockedNotebook).ToString()))
                    wrong.Add($"{method} {path} reveals: {body}");
            }

            Assert.Empty(wrong);
        }
    }

    private async Task<Caller> Share(Guid node, bool writes)
    {
        Assert.NotNull(
            await host
                .Services.GetRequiredService<Store.Sharing.ShareStore>()
                .Make(
                    new(group.Space, node, null, ShareWith.Person, group.Stranger.Id, null, null, writes, false, group.Owner.Id, null),
                    default
                )
        );
        return callers[3];
    }

    [Fact]
    public async Task Who_names_a_foreign_id_in_a_space_of_their_own_gets_nothing_of_it()
    {
        var own = await OwnSpace(callers[3]);
        var wrong = new List<string>();
        foreach (var (_, method, path, _, naming, _) in Table.Where(row => row.Method != "DELETE"))
        {
            var (status, body) = await Ask(callers[3], method, path, own, notebook, page, asset);
            if (status != naming)
                wrong.Add($"{method} {path}: {status}, not {naming}");
            if (Reveals(body, "open words", group.Owner.Id.ToString()))
                wrong.Add($"{method} {path} reveals something");
        }

        Assert.Empty(wrong);
        // The ink of a page is not in its picture, its export, its operations or its copy there, nor is its lock taken along or put on.
        Assert.Empty(await callers[3].After(own, DocumentKind.Page, page));
        Assert.DoesNotContain(
            "M",
            PathsOf(await callers[3].Http.GetStringAsync($"/api/spaces/{own}/pages/{page}/export.svg")),
            StringComparison.Ordinal
        );
        Assert.Contains(
            "M",
            PathsOf(await callers[0].Http.GetStringAsync($"/api/spaces/{group.Space}/pages/{page}/export.svg")),
            StringComparison.Ordinal
        );
        Assert.Equal(HttpStatusCode.OK, (await callers[3].Http.GetAsync($"/api/spaces/{own}/notebooks/{foreign}/export.pdf")).StatusCode);
        var copied = await callers[3].Http.PostAsJsonAsync($"/api/spaces/{own}/copies", new { node = foreign });
        var copy = (await copied.Content.ReadFromJsonAsync<System.Text.Json.JsonElement>()).GetProperty("copy").GetGuid();
        var pages = await callers[3].Http.GetFromJsonAsync<System.Text.Json.JsonElement>($"/api/spaces/{own}/notebooks/{copy}/pages");
        Assert.Equal(2, pages.GetArrayLength());
        foreach (var one in pages.EnumerateArray())
            Assert.Empty(await callers[3].After(own, DocumentKind.Page, one.GetProperty("id").GetGuid()));
    }

    [Fact]
    public async Task Nothing_of_a_locked_notebooks_inside_is_in_any_answer()
    {
        var wrong = new List<string>();
        foreach (
            var (_, method, path, _, _, ofLocked) in Table.Where(row =>
                row.Method != "DELETE" && !row.Endpoint.EndsWith("/shut", StringComparison.Ordinal)
            )
        )
        {
            foreach (var caller in callers[..3])
            {
                var (status, body) = await Ask(caller, method, path, group.Space, lockedNotebook, lockedPage, lockedAsset);
                if (caller == callers[0] && status != ofLocked)
                    wrong.Add($"{method} {path}: {status}, not {ofLocked}");
                if (Reveals(body, "secret words", lockedPage.ToString(), Section(lockedNotebook).ToString()))
                    wrong.Add($"{method} {path} reveals: {body}");
            }
        }

        Assert.Empty(wrong);
        var summaries = await callers[0].Http.GetFromJsonAsync<System.Text.Json.JsonElement>($"/api/spaces/{group.Space}/summaries");
        Assert.DoesNotContain(
            summaries.GetProperty("summaries").EnumerateArray(),
            one => one.GetProperty("notebook").GetGuid() == lockedNotebook
        );
        Assert.Equal(lockedNotebook, Assert.Single(summaries.GetProperty("shut").EnumerateArray()).GetGuid());
        // Where it was opened, all of it is there again.
        (
            await callers[1].Http.PostAsJsonAsync($"/api/spaces/{group.Space}/locks/{lockedNotebook}/open", new { words = "a-passphrase" })
        ).EnsureSuccessStatusCode();
        Assert.Contains("secret words", await callers[1].Http.GetStringAsync("/api/follow-ups"), StringComparison.Ordinal);
        Assert.Contains(
            "secret words",
            await callers[1].Http.GetStringAsync($"/api/spaces/{group.Space}/summaries"),
            StringComparison.Ordinal
        );
    }

    [Fact]
    public async Task A_page_nobody_wrote_on_has_a_picture_and_prints()
    {
        var unwritten = Guid.NewGuid();
        foreach (var what in new[] { "thumbnail.svg", "export.pdf", "export.svg" })
            Assert.Equal(
                HttpStatusCode.OK,
                (await callers[2].Http.GetAsync($"/api/spaces/{group.Space}/pages/{unwritten}/{what}")).StatusCode
            );
    }

    [Fact]
    public void The_table_names_every_endpoint()
    {
        var served = host
            .Services.GetRequiredService<EndpointDataSource>()
            .Endpoints.OfType<RouteEndpoint>()
            .Select(endpoint =>
                (
                    Path: "/" + endpoint.RoutePattern.RawText!.TrimStart('/'),
                    Methods: endpoint.Metadata.GetMetadata<HttpMethodMetadata>()?.HttpMethods ?? []
                )
            )
            .Where(endpoint =>
                !endpoint.Path.StartsWith("/live", StringComparison.Ordinal) && !endpoint.Path.Contains("nonfile", StringComparison.Ordinal)
            )
            .SelectMany(endpoint => endpoint.Methods.Select(method => $"{method} {endpoint.Path}"));
        Assert.Equal(Table.Select(row => $"{row.Method} {row.Endpoint}").Order().Distinct(), served.Order().Distinct());
    }

    [Fact]
    public async Task Every_hub_method_lets_in_whom_the_roles_allow()
    {
        var methods = typeof(Live.LiveHub)
            .GetMethods(
                System.Reflection.BindingFlags.Public
                    | System.Reflection.BindingFlags.Instance
                    | System.Reflection.BindingFlags.DeclaredOnly
            )
            .Where(method => !method.IsSpecialName && method.GetBaseDefinition() == method)
            .Select(method => method.Name)
            .Order();
        Assert.Equal(
            ["Caret", "Follow", "Hand", "Hold", "Join", "Leave", "Lower", "Pen", "Point", "Show", "Stand", "Teach", "View", "Wet"],
            methods
        );

        foreach (var (caller, mayJoin, mayWrite) in new[] { (0, true, true), (1, true, true), (2, true, false), (3, false, false) })
        {
            await using var hub = await Connect(callers[caller]);
            Assert.Equal(mayJoin, await Allowed(() => hub.InvokeAsync("Join", Address(page))));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Wet", Address(page), new byte[] { 1 })));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Pen", Address(page), 1, 2)));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Hold", Address(page), new byte[32])));
            Assert.False(await Allowed(() => hub.InvokeAsync("Hold", Address(page), new byte[31])));
            Assert.Equal(mayWrite, await Allowed(() => hub.InvokeAsync("Caret", Address(page), "0000000000000001-1", "start", "end")));
            Assert.False(await Allowed(() => hub.InvokeAsync("Caret", Address(page), new string('a', 61), "start", "end")));
            // Where one looks one may say in a notebook that one follows, and nowhere else.
            var inNotebook = $"{group.Space}/notebook/{notebook}";
            foreach (var joined in new[] { false, true })
            {
                if (joined)
                    Assert.Equal(mayJoin, await Allowed(() => hub.InvokeAsync("Join", inNotebook)));
                var may = joined && mayJoin;
                Assert.Equal(may, await Allowed(() => hub.InvokeAsync("Stand", inNotebook, page.ToString())));
                Assert.Equal(may, await Allowed(() => hub.InvokeAsync("Follow", inNotebook, "somebody", true)));
                Assert.Equal(may, await Allowed(() => hub.InvokeAsync("View", inNotebook, page.ToString(), 1, 2, 3)));
            }

            // Whoever is in the notebook raises a hand. At a lectern stands who opened it, and here nobody did.
            Assert.Equal(mayJoin, await Allowed(() => hub.InvokeAsync("Hand", inNotebook, true)));
            Assert.False(await Allowed(() => hub.InvokeAsync("Hand", Address(page), true)));
            Assert.False(await Allowed(() => hub.InvokeAsync("Teach", inNotebook, Guid.NewGuid().ToString())));
            Assert.False(await Allowed(() => hub.InvokeAsync("Show", page.ToString(), Array.Empty<string>(), 1, 2, 3)));
            Assert.False(await Allowed(() => hub.InvokeAsync("Point", new byte[] { 1 })));
            Assert.False(await Allowed(() => hub.InvokeAsync("Lower", "somebody")));
            Assert.False(await Allowed(() => hub.InvokeAsync("Stand", Address(page), page.ToString())));
            Assert.False(await Allowed(() => hub.InvokeAsync("View", inNotebook, "no page", 1, 2, 3)));
            Assert.False(await Allowed(() => hub.InvokeAsync("View", inNotebook, page.ToString(), 1, 2, 0)));
            Assert.False(await Allowed(() => hub.InvokeAsync("Follow", inNotebook, new string('x', 1_000), true)));
            Assert.True(await Allowed(() => hub.InvokeAsync("Leave", Address(page))));
            Assert.False(await Allowed(() => hub.InvokeAsync("Wet", Address(page), new byte[] { 1 })));
            Assert.False(await Allowed(() => hub.InvokeAsync("Join", Address(lockedPage))));
            Assert.False(await Allowed(() => hub.InvokeAsync("Join", $"{group.Space}/notebook/{lockedNotebook}")));
            foreach (
                var nonsense in new[]
                {
                    "",
                    "page",
                    $"{group.Space}/sheet/{page}",
                    $"{group.Space}/library/{page}",
                    $"{group.Space}/page/{Guid.Empty}",
                    new string('x', 100_000 / 4),
                }
            )
                Assert.False(await Allowed(() => hub.InvokeAsync("Join", nonsense)));
        }

        await Assert.ThrowsAnyAsync<Exception>(() => Connect(callers[4]));
    }

    [Fact]
    public async Task Who_follows_a_space_hears_that_something_was_written_and_a_stranger_does_not()
    {
        await using var reader = await Connect(callers[2]);
        await using var stranger = await Connect(callers[3]);
        var (heard, strangerHeard) = (new TaskCompletionSource<string>(), false);
        reader.On<string>("news", space => heard.TrySetResult(space));
        stranger.On<string>("news", _ => strangerHeard = true);
        var library = $"{group.Space}/library/{group.Space}";
        await reader.InvokeAsync("Join", library);
        Assert.False(await Allowed(() => stranger.InvokeAsync("Join", library)));
        await callers[1]
            .Send(
                group.Space,
                DocumentKind.Page,
                page,
                new Replica(5, group.Writer.Id).Make(Stroke(), DateTimeOffset.UtcNow.ToUnixTimeMilliseconds())
            );
        Assert.Equal(library, await heard.Task.WaitAsync(TimeSpan.FromSeconds(10)));
        // What was sent to it before this answer would have come.
        await stranger.InvokeAsync("Leave", Address(page));
        Assert.False(strangerHeard);
    }

    [Fact]
    public async Task Operations_under_anothers_name_or_from_the_future_come_back_with_the_reason()
    {
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        var own = new Replica(5, group.Writer.Id);
        var answer = await callers[1]
            .Send(
                group.Space,
                DocumentKind.Page,
                page,
                new Replica(1, group.Owner.Id).Make(Stroke(), now),
                own.Make(new Change.ItemsRemoved([]), now),
                own.Make(Stroke(), now),
                own.Make(Stroke(), now + 90_000)
            );
        var results = await Caller.Results(answer);
        Assert.Equal(["wrong-author", "empty", null, "clock-ahead"], results.Select(result => result.Code));
        Assert.Equal(3, results[2].Sequence);
    }

    [Fact]
    public async Task Malformed_oversized_and_misplaced_sendings_are_refused_and_the_page_stays()
    {
        var random = new Random(1);
        var now = DateTimeOffset.UtcNow.ToUnixTimeMilliseconds();
        for (var i = 0; i < 40; i++)
        {
            var noise = new byte[random.Next(200)];
            random.NextBytes(noise);
            var results = await Caller.Results(await callers[1].SendFrames(group.Space, DocumentKind.Page, page, [noise]));
            Assert.Equal("malformed", results.Single().Code);
            using var raw = await callers[1]
                .Http.PostAsync(Caller.PathOf(group.Space, DocumentKind.Page, page), new ByteArrayContent(noise));
            Assert.True((int)raw.StatusCode is 200 or 400);
        }

        using var tooMuch = new HttpRequestMessage(HttpMethod.Post, Caller.PathOf(group.Space, DocumentKind.Page, page))
        {
            Content = new ByteArrayContent(new byte[9 * 1024 * 1024]),
        };
        tooMuch.Headers.ExpectContinue = true;
        using var huge = await callers[1].Http.SendAsync(tooMuch);
        Assert.Equal(HttpStatusCode.RequestEntityTooLarge, huge.StatusCode);
        // Under the same id, a notebook is another document.
        var elsewhere = await callers[1]
            .Send(
                group.Space,
                DocumentKind.Notebook,
                page,
                new Replica(7, group.Writer.Id).Make(new Change.PageAdded(Guid.NewGuid(), "V", "a4-ruled-710"), now)
            );
        Assert.Equal(HttpStatusCode.OK, elsewhere.StatusCode);
        Assert.Equal(2, (await callers[0].After(group.Space, DocumentKind.Page, page)).Count);
    }

    [Fact]
    public async Task A_request_without_the_antiforgery_token_changes_nothing()
    {
        using var request = new HttpRequestMessage(HttpMethod.Put, "/api/people/me")
        {
            Content = JsonContent.Create(new { name = "Taken over" }),
        };
        callers[0].Http.DefaultRequestHeaders.Remove("X-Quill-Antiforgery");
        using var answer = await callers[0].Http.SendAsync(request);
        Assert.Equal(HttpStatusCode.BadRequest, answer.StatusCode);
        Assert.Equal("Owner Person", (await callers[0].Refresh()).GetProperty("person").GetProperty("name").GetString());
    }

    private async Task<(int Status, string Body)> Ask(
        Caller caller,
        string method,
        string path,
        Guid space,
        Guid ofNotebook,
        Guid ofPage,
        Guid ofAsset
    )
    {
        var filled = path.Replace("{space}", space.ToString())
            .Replace("{page}", ofPage.ToString())
            .Replace("{notebook}", ofNotebook.ToString())
            .Replace("{locked}", lockedNotebook.ToString())
            .Replace("{asset}", ofAsset.ToString())
            .Replace("{spare}", spare.ToString())
            .Replace("{writer}", group.Writer.Id.ToString());
        using var request = new HttpRequestMessage(new HttpMethod(method), filled);
        var isBytes = path.EndsWith("operations", StringComparison.Ordinal) || path.Contains("/pieces/", StringComparison.Ordinal);
        object form = path.EndsWith("/copies", StringComparison.Ordinal)
            ? new { node = ofNotebook, toSpace = space }
            : new
            {
                role = "writer",
                rule = "{\"all\":[]}",
                node = ofNotebook,
                page = ofPage,
                passphrase = "a-passphrase",
                minutes = 5,
            };
        if (method != "GET")
            request.Content = isBytes ? new ByteArrayContent([]) : JsonContent.Create(form);
        using var answer = await caller.Http.SendAsync(request);
        return ((int)answer.StatusCode, await answer.Content.ReadAsStringAsync());
    }

    private static bool Reveals(string body, params string[] inside) =>
        inside.Any(one => body.Contains(one, StringComparison.OrdinalIgnoreCase));

    /// <summary>What is drawn as ink: filled outlines come after the paper's lines.</summary>
    private static string PathsOf(string svg) =>
        string.Concat(System.Text.RegularExpressions.Regex.Matches(svg, "<path[^>]*#0{6}[^>]*>").Select(match => match.Value));

    private string Address(Guid which) => $"{group.Space}/page/{which}";

    private static Guid Section(Guid of) => new([.. of.ToByteArray()[..15], (byte)(of.ToByteArray()[15] ^ 1)]);

    private static Change.SpotAdded Mark(string note) =>
        new(
            Guid.NewGuid(),
            Core.Spots.SpotKind.Mark,
            new Box(100, 200, 300, 400),
            [],
            [new Core.Spots.SpotValue(Core.Spots.SpotField.Mark, "ask"), new Core.Spots.SpotValue(Core.Spots.SpotField.Note, note)]
        );

    private async Task<Guid> Freeze(Guid which)
    {
        var page = await host.Services.GetRequiredService<DocumentStore>().Page(group.Space, which, CancellationToken.None);
        return await callers[0].SendAsset(group.Space, FrozenPage.Write(page, "a4-ruled-710"));
    }

    private static async Task<Guid> OwnSpace(Caller caller) =>
        (await caller.Refresh())
            .GetProperty("spaces")
            .EnumerateArray()
            .Single(space => space.GetProperty("personal").GetBoolean())
            .GetProperty("id")
            .GetGuid();

    private async Task<HubConnection> Connect(Caller caller)
    {
        var hub = caller.Live(host.Address);
        await hub.StartAsync();
        return hub;
    }

    private static async Task<bool> Allowed(Func<Task> call)
    {
        try
        {
            await call();
            return true;
        }
        catch (HubException refused)
            when (refused.Message.Contains("may see", StringComparison.Ordinal)
                || refused.Message.Contains("not write", StringComparison.Ordinal)
                || refused.Message.Contains("not been joined", StringComparison.Ordinal)
                || refused.Message.Contains("locked", StringComparison.Ordinal)
                || refused.Message.Contains("at a lectern", StringComparison.Ordinal)
            )
        {
            return false;
        }
    }

    private static Change.StrokeAdded Stroke() => new(new Pen(PenKind.Ball, 40, 0xFF), 0, Generate.Wave(12));
}
