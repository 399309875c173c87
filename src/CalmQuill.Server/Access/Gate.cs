using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Access;

/// <summary>Who may enter what: role and lock, asked in this one place by every endpoint and hub call.</summary>
/// <remarks>
/// Who is in a library has one role in all of it. Who is not may be a guest: of a notebook that was shared, by itself or by a folder around it, and of the pages that are at home there.
/// A lock is the affair of the notebook it lies on, and of the pages that are at home in it. That some other notebook names a page, or the library, changes nothing.
/// </remarks>
public sealed class Gate(SpaceStore spaces, LockStore locks, GuestStore guests)
{
    public async Task<Entry<ReadableSpace>> ReadableSpace(Guid space, Visitor visitor, CancellationToken cancel)
    {
        var role = await spaces.RoleIn(space, visitor.Person, cancel);
        return Rights.MayRead(role) ? new ReadableSpace(space, role, visitor) : Denial.NotHere;
    }

    public async Task<Entry<WritableSpace>> WritableSpace(Guid space, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied!;
        return Rights.MayWrite(readable.Role) ? new WritableSpace(space, readable.Role, visitor) : Denial.MayNotWrite;
    }

    public async Task<Entry<OwnedGroup>> OwnedGroup(Guid space, Visitor visitor, CancellationToken cancel) =>
        await WhyNoGroup(space, Act.ManagePeople, visitor, cancel) is { } denied ? denied : new OwnedGroup(space, visitor);

    public async Task<Entry<JoinedGroup>> JoinedGroup(Guid space, Visitor visitor, CancellationToken cancel) =>
        await WhyNoGroup(space, Act.LeaveGroup, visitor, cancel) is { } denied ? denied : new JoinedGroup(space, visitor);

    /// <summary>Why something that is done to groups, and never to a library of one's own, may not be done here.</summary>
    private async Task<Denial?> WhyNoGroup(Guid space, Act act, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied;
        if (!Rights.May(readable.Role, act))
            return Denial.MayNotManage;
        return await spaces.IsPersonal(space, cancel) ? Denial.NoGroup : null;
    }

    /// <summary>What somebody is in a library, or as a guest in one notebook of it; as a guest nothing where no notebook is named.</summary>
    private async Task<(Role Role, bool IsGuest)> Standing(Guid space, Guid? notebook, Visitor visitor, CancellationToken cancel)
    {
        var role = await spaces.RoleIn(space, visitor.Person, cancel);
        if (Rights.MayRead(role))
            return (role, false);
        return (notebook is { } one ? await AsGuest(space, one, visitor, cancel) : Role.None, true);
    }

    private async Task<Role> AsGuest(Guid space, Guid notebook, Visitor visitor, CancellationToken cancel) =>
        visitor.Person == Guid.Empty ? Role.None : await guests.RoleIn(space, notebook, visitor.Person, cancel);

    public async Task<Entry<ReadablePage>> ReadablePage(Guid space, Guid page, Visitor visitor, CancellationToken cancel)
    {
        var home = await locks.HomeOf(space, page, cancel);
        var (role, _) = await Standing(space, home, visitor, cancel);
        if (!Rights.MayRead(role))
            return Denial.NotHere;
        if (home is null)
            return new ReadablePage(space, page, role, false, visitor);
        if (await locks.IsShut(space, home.Value, visitor.Session, cancel))
            return Denial.Locked;
        return new ReadablePage(space, page, role, await locks.IsLocked(space, home.Value, cancel), visitor);
    }

    public async Task<Entry<ReadableNotebook>> ReadableNotebook(Guid space, Guid notebook, Visitor visitor, CancellationToken cancel)
    {
        var (role, isGuest) = await Standing(space, notebook, visitor, cancel);
        if (!Rights.MayRead(role))
            return Denial.NotHere;
        return await locks.IsShut(space, notebook, visitor.Session, cancel)
            ? Denial.Locked
            : new ReadableNotebook(space, notebook, role, isGuest, visitor);
    }

    public async Task<Entry<LockedNotebook>> LockedNotebook(Guid space, Guid notebook, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied!;
        return await locks.Find(space, notebook, cancel) is { } found ? new LockedNotebook(found, readable.Role, visitor) : Denial.NotHere;
    }

    /// <summary>Whoever made the notebook, or looks after the group, and may write there.</summary>
    public async Task<Entry<OwnedNotebook>> OwnedNotebook(Guid space, Guid notebook, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied!;
        if (!Rights.MayWrite(readable.Role))
            return Denial.MayNotWrite;
        if (await locks.MakerOf(space, notebook, cancel) is not { } maker)
            return Denial.NotHere;
        return Rights.MayLock(readable.Role, maker == visitor.Person)
            ? new OwnedNotebook(space, notebook, visitor)
            : new Denial(
                StatusCodes.Status403Forbidden,
                Refusal.NotAllowedCode,
                $"Only who made this notebook, or an owner of the group, may lock it."
            );
    }

    public async Task<Entry<ReadableDocument>> ReadableDocument(DocumentRef document, Visitor visitor, CancellationToken cancel)
    {
        if (await IsNobodysAside(document, cancel))
            return Denial.NotHere;
        var notebook = await NotebookOf(document, cancel);
        var role = await spaces.RoleIn(document.Space, visitor.Person, cancel);
        var isGuest = !Rights.MayRead(role);
        if (isGuest)
            role = await AsGuest(document, notebook, visitor, cancel);
        if (!Rights.MayRead(role))
            return Denial.NotHere;
        if (notebook is { } around && await locks.IsShut(document.Space, around, visitor.Session, cancel))
            return Denial.Locked;
        return new ReadableDocument(document, role, isGuest, visitor);
    }

    /// <summary>An aside lies in a person's own library, whose guests see notebooks of it and what is at home there: an aside never is. A group has none.</summary>
    private async Task<bool> IsNobodysAside(DocumentRef document, CancellationToken cancel) =>
        document.Kind is DocumentKind.Aside && !await spaces.IsPersonal(document.Space, cancel);

    /// <summary>The notebook in which a page is at home; null of one that no notebook has named.</summary>
    public Task<Guid?> HomeOf(Guid space, Guid page, CancellationToken cancel) => locks.HomeOf(space, page, cancel);

    /// <summary>The notebook whose doors are a document's own; null of a library, and of a page that no notebook has named.</summary>
    private async Task<Guid?> NotebookOf(DocumentRef document, CancellationToken cancel) =>
        document.Kind switch
        {
            DocumentKind.Notebook => document.Id,
            DocumentKind.Page => await locks.HomeOf(document.Space, document.Id, cancel),
            _ => null,
        };

    /// <summary>What somebody who is not in the library is at a document of it.</summary>
    private async Task<Role> AsGuest(DocumentRef document, Guid? notebook, Visitor visitor, CancellationToken cancel)
    {
        if (notebook is { } one)
            return await AsGuest(document.Space, one, visitor, cancel);
        // A guest's new page is written on before its notebook names it: a device sends both, in whatever order.
        return document.Kind is DocumentKind.Page && await guests.MayBegin(document.Space, document.Id, visitor.Person, cancel)
            ? Role.Writer
            : Role.None;
    }

    public async Task<Entry<WritableDocument>> WritableDocument(DocumentRef document, Visitor visitor, CancellationToken cancel)
    {
        if (await IsNobodysAside(document, cancel))
            return Denial.NotHere;
        var role = await spaces.RoleIn(document.Space, visitor.Person, cancel);
        var isGuest = !Rights.MayRead(role);
        // Who is in the library writes wherever in it; whose doors they are only guests are asked.
        if (isGuest)
            role = await AsGuest(document, await NotebookOf(document, cancel), visitor, cancel);
        if (!Rights.MayRead(role))
            return Denial.NotHere;
        // Who may only read a page may answer to its marks; each operation is judged by the role.
        var mayAnswer = document.Kind is DocumentKind.Page && Rights.May(role, Act.Answer);
        return Rights.MayWrite(role) || mayAnswer ? new WritableDocument(document, role, isGuest, visitor) : Denial.MayNotWrite;
    }

    /// <summary>A file of a space, such as a picture on a cover: for those who are in it, and for guests of a notebook that shows it.</summary>
    public async Task<Entry<ReadableAsset>> ReadableAsset(Guid space, Guid asset, Visitor visitor, CancellationToken cancel) =>
        (await ReadableSpace(space, visitor, cancel)).Value is not null
        || (visitor.Person != Guid.Empty && await guests.MaySee(space, asset, visitor.Person, cancel))
            ? new ReadableAsset(space, asset)
            : Denial.NotHere;

    /// <summary>Whether what may be shared is a folder, else a notebook; or why it may not be: see <see cref="Rights.MayShare"/>.</summary>
    public async Task<(bool IsFolder, Denial? Denied)> Shareable(WritableSpace space, Guid node, CancellationToken cancel) =>
        await spaces.MadeAndKind(space.Id, node, cancel) is not var (maker, isFolder) ? (false, Denial.NotHere)
        : Rights.MayShare(space.Role, maker == space.Visitor.Person, isFolder) ? (isFolder, null)
        : (isFolder, Denial.MayNotShare);

    /// <summary>The notebooks of a space whose inside the one who asks may not see.</summary>
    public async Task<List<Guid>> ShutIn(Guid space, Visitor visitor, CancellationToken cancel) =>
        [.. (await locks.ShutFor(visitor.Session, visitor.Person, space, cancel)).Select(one => one.Notebook)];

    /// <summary>The same in all spaces of the person.</summary>
    public Task<List<NotebookRef>> Shut(Visitor visitor, CancellationToken cancel) =>
        locks.ShutFor(visitor.Session, visitor.Person, null, cancel);
}
