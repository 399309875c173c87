using System.Globalization;
using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Server.Mail;
using CalmQuill.Server.People;
using CalmQuill.Store;
using CalmQuill.Store.People;
using CalmQuill.Store.Sharing;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.DataProtection;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.Sharing;

/// <summary>The giving side of sharing: a folder, a notebook or a page with a person, a group, by a link, or with everybody.</summary>
internal static class ShareEndpoints
{
    private const int MostWho = 300;

    /// <param name="Who">A name here, or an e-mail address, to which a link is mailed.</param>
    internal sealed record Asked(
        Guid Node,
        Guid? Page,
        string? With,
        string? Who,
        Guid? Group,
        bool Writes,
        int Days,
        string? Passphrase,
        bool Copies
    );

    public static void MapShares(this IEndpointRouteBuilder api)
    {
        var shares = api.MapGroup("/spaces/{space:guid}/shares").RequireAuthorization();
        shares.MapGet("/", Of);
        shares.MapPost("/", Make);
        shares.MapDelete("/{share:guid}", TakeBack);
    }

    private static IDataProtector Cipher(IDataProtectionProvider protection) => protection.CreateProtector("links to what is shared");

    /// <summary>Where somebody who was given a link goes: to come in, or only to see.</summary>
    private static string Path(ShareWith with, string secret) => with is ShareWith.Everybody ? $"/open#{secret}" : $"/join#share={secret}";

    /// <summary>What is shared out of a library: owners see all of it, others what they shared themselves.</summary>
    private static async Task<IResult> Of(
        WritableSpace space,
        ShareStore shares,
        HttpContext http,
        Settings settings,
        IDataProtectionProvider protection,
        CancellationToken cancel
    )
    {
        var cipher = Cipher(protection);
        return Results.Ok(
            (await shares.Of(space.Id, cancel))
                .Where(one => MayTakeBack(space, one))
                .Select(one =>
                {
                    var link = one.Secret is { } secret ? LinkOf(http, settings, one.With, cipher.Open(secret)) : null;
                    return new
                    {
                        one.Id,
                        one.Node,
                        one.Name,
                        one.Page,
                        with = SharingEndpoints.Word(one.With),
                        one.To,
                        one.HasPassphrase,
                        one.Writes,
                        one.Copies,
                        one.By,
                        until = one.Until?.ToUnixTimeMilliseconds(),
                        one.Guests,
                        link,
                        modules = string.IsNullOrEmpty(link) ? null : SquareCode.Of(link),
                    };
                })
        );
    }

    private static bool MayTakeBack(WritableSpace space, OpenShare share) =>
        Rights.May(space.Role, Act.ShareAny) || share.MadeBy == space.Visitor.Person;

    private static async Task<IResult> Make(
        WritableSpace space,
        Asked asked,
        Gate gate,
        ShareStore shares,
        PersonStore people,
        SpaceStore spaces,
        HttpContext http,
        Settings settings,
        MailSender mail,
        IPasswordHasher<Person> hasher,
        IDataProtectionProvider protection,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var who = asked.Who?.Trim() ?? "";
        var email = asked.With == "person" && Accounts.EmailProblem(who) is null ? who : "";
        var share = new Share(
            asked.With switch
            {
                // An address is not asked whether it belongs to anybody here: it gets a link.
                "person" => email.Length > 0 ? ShareWith.Link : ShareWith.Person,
                "group" => ShareWith.Group,
                "link" => ShareWith.Link,
                "everybody" => ShareWith.Everybody,
                _ => default,
            },
            asked.Writes,
            asked.Days,
            asked.Passphrase ?? "",
            asked.Copies
        );
        if (share.Problem is { } problem)
            return Problems.BadInput(problem);
        var (isFolder, denied) = await gate.Shareable(space, asked.Node, cancel);
        if (denied is not null)
            return Problems.Of(denied);
        if (share.With is ShareWith.Everybody && isFolder)
            return Problems.BadInput($"Everybody may be shown a notebook or a page, not a folder.");
        if (asked.Page is not null && share.With is not ShareWith.Everybody)
            return Problems.BadInput($"A single page is shown to everybody. With others its notebook is shared.");

        Guid? to = null;
        if (share.With is ShareWith.Person)
        {
            var (person, why) = await Named(who, space, people, spaces, cancel);
            if (person is null)
                return Problems.BadInput(why!);
            to = person.Id;
        }
        else if (share.With is ShareWith.Group)
        {
            if (asked.Group is not { } group || (await spaces.Of(space.Visitor.Person, cancel)).All(one => one.Id != group || one.Personal))
                return Problems.BadInput($"Something is shared with a group that you are in.");
            if (group == space.Id)
                return Problems.BadInput($"This is in the group’s library already.");
            to = group;
        }

        var secret = share.With is ShareWith.Link or ShareWith.Everybody ? Secrets.Draw() : null;
        var now = clock.GetUtcNow();
        var made = await shares.Make(
            new MadeShare(
                space.Id,
                asked.Node,
                asked.Page,
                share.With,
                to,
                secret is null ? null : (secret, Cipher(protection).Encipher(secret)),
                share.Passphrase.Length == 0 ? null : hasher.HashPassword(null!, share.Passphrase),
                share.Writes,
                share.Copies,
                space.Visitor.Person,
                share.Days == 0 ? null : now.AddDays(share.Days)
            ),
            cancel
        );
        if (made is null)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "too-many-shares",
                $"{Share.MostOpen} things of this library are shared. Take one back first."
            );
        var link = secret is null ? null : PeopleEndpoints.Link(http, settings, Path(share.With, secret));
        var mailed = email.Length > 0 && mail.IsThere;
        if (mailed)
            await Post(space.Visitor.Person, email, link!, share, people, mail, now, cancel);
        return Results.Ok(
            new
            {
                id = made,
                link,
                mailed,
            }
        );
    }

    /// <summary>The one person here of this name who is not in the library, or why there is none.</summary>
    private static async Task<(Person? Person, Sentence? Why)> Named(
        string who,
        WritableSpace space,
        PersonStore people,
        SpaceStore spaces,
        CancellationToken cancel
    )
    {
        if (who.Length is 0 or > MostWho)
            return (null, $"Say with whom: a name, or an e-mail address.");
        var named = await people.FindByName(who, cancel);
        if (named.Count == 0)
            return (null, $"Nobody here is called “{who}”. Give the e-mail address, or send a link.");
        if (named.Count > 1)
            return (null, $"Several people here are called “{who}”. Give the e-mail address.");
        if (named[0].Id == space.Visitor.Person)
            return (null, $"You have it already.");
        return await spaces.RoleIn(space.Id, named[0].Id, cancel) == Role.None
            ? (named[0], null)
            : (null, $"{named[0].Name} is in this library already, and sees it.");
    }

    private static async Task Post(
        Guid by,
        string email,
        string link,
        Share share,
        PersonStore people,
        MailSender mail,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var name = (await people.Find(by, cancel))!.Name;
        var until = share.Days == 0 ? "" : $", until {now.AddDays(share.Days).ToString("d MMMM yyyy", CultureInfo.InvariantCulture)}";
        await mail.Post(
            new Mail.Mail(
                email,
                $"{name} shares handwritten notes with you",
                $"Hello,\n\n{name} shares handwritten notes with you at Calm Quill. Open this address{until}:\n\n{link}\n\nIf you do not know what this is about, do nothing.\n"
            ),
            null,
            cancel
        );
    }

    private static async Task<IResult> TakeBack(WritableSpace space, Guid share, ShareStore shares, CancellationToken cancel) =>
        (await shares.Of(space.Id, cancel)).Find(one => one.Id == share) is { } found
        && MayTakeBack(space, found)
        && await shares.TakeBack(space.Id, share, cancel)
            ? Results.NoContent()
            : Problems.NotHere();

    private static string LinkOf(HttpContext http, Settings settings, ShareWith with, string secret) =>
        secret.Length == 0 ? "" : PeopleEndpoints.Link(http, settings, Path(with, secret));
}
