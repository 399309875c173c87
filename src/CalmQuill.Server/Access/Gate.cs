using CalmQuill.Core.Access;
using CalmQuill.Core.Operations;
using CalmQuill.Store.Documents;
using CalmQuill.Store.Locks;
using CalmQuill.Store.Spaces;

namespace CalmQuill.Server.Access;

/// <summary>Who may enter what: role and lock, asked in this one place by every endpoint and hub call.</summary>
/// <remarks>
/// A lock is the affair of the notebook it lies on, and of the pages that are at home in it. That some other notebook names a page, or the library, changes nothing.
/// </remarks>
public sealed class Gate(SpaceStore spaces, LockStore locks)
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

    public async Task<Entry<ReadablePage>> ReadablePage(Guid space, Guid page, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied!;
        var home = await locks.HomeOf(space, page, cancel);
        if (home is null)
            return new ReadablePage(space, page, false, visitor);
        if (await locks.IsShut(space, home.Value, visitor.Session, cancel))
            return Denial.Locked;
        return new ReadablePage(space, page, await locks.IsLocked(space, home.Value, cancel), visitor);
    }

    public async Task<Entry<ReadableNotebook>> ReadableNotebook(Guid space, Guid notebook, Visitor visitor, CancellationToken cancel)
    {
        var (readable, denied) = await ReadableSpace(space, visitor, cancel);
        if (readable is null)
            return denied!;
        return await locks.IsShut(space, notebook, visitor.Session, cancel)
            ? Denial.Locked
            : new ReadableNotebook(space, notebook, visitor);
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
        var (readable, denied) = await ReadableSpace(document.Space, visitor, cancel);
        if (readable is null)
            return denied!;
        var notebook = document.Kind switch
        {
            DocumentKind.Notebook => document.Id,
            DocumentKind.Page => await locks.HomeOf(document.Space, document.Id, cancel),
            _ => null,
        };
        if (notebook is { } around && await locks.IsShut(document.Space, around, visitor.Session, cancel))
            return Denial.Locked;
        return new ReadableDocument(document, readable.Role, visitor);
    }

    public async Task<Entry<WritableDocument>> WritableDocument(DocumentRef document, Visitor visitor, CancellationToken cancel)
    {
        var (writable, denied) = await WritableSpace(document.Space, visitor, cancel);
        return writable is null ? denied! : new WritableDocument(document, writable.Role, visitor);
    }

    /// <summary>The notebooks of a space whose inside the one who asks may not see.</summary>
    public async Task<List<Guid>> ShutIn(Guid space, Visitor visitor, CancellationToken cancel) =>
        [.. (await locks.ShutFor(visitor.Session, visitor.Person, space, cancel)).Select(one => one.Notebook)];

    /// <summary>The same in all spaces of the person.</summary>
    public Task<List<NotebookRef>> Shut(Visitor visitor, CancellationToken cancel) =>
        locks.ShutFor(visitor.Session, visitor.Person, null, cancel);
}
