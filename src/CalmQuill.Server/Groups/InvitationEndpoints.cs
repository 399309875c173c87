using System.Globalization;
using CalmQuill.Core.Access;
using CalmQuill.Server.Access;
using CalmQuill.Server.Mail;
using CalmQuill.Server.People;
using CalmQuill.Store;
using CalmQuill.Store.Groups;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.DataProtection;

namespace CalmQuill.Server.Groups;

/// <summary>Inviting people into a group, by link, by mail or by name; opening an invitation, and answering those who ask to be let in.</summary>
internal static class InvitationEndpoints
{
    private const int MostWho = 300;

    internal sealed record Asked(string? Role, int? Uses, int? Days, bool Asks, string? Who);

    internal sealed record Link(string? Secret, bool Ask);

    internal sealed record Yes(bool Answer);

    public static void MapInvitations(this IEndpointRouteBuilder api)
    {
        var group = api.MapGroup("/spaces/{space:guid}/invitations").RequireAuthorization();
        group.MapGet("/", Of);
        group.MapPost("/", Invite);
        group.MapDelete("/{invitation:guid}", TakeBack);
        api.MapPost("/spaces/{space:guid}/requests/{person:guid}", AnswerRequest).RequireAuthorization();
        api.MapPost("/joining/look", Look);
        api.MapPost("/joining", Join).RequireAuthorization();
        var door = api.MapGroup("/door").RequireAuthorization();
        door.MapGet("/", Door);
        door.MapPost("/{invitation:guid}", Answer);
    }

    /// <summary>Where somebody who was given a link goes.</summary>
    private static string Path(string secret) => $"/join#group={secret}";

    private static IDataProtector Cipher(IDataProtectionProvider protection) => protection.CreateProtector("invitations into groups");

    private static async Task<IResult> Of(
        OwnedGroup group,
        InvitationStore invitations,
        HttpContext http,
        Settings settings,
        IDataProtectionProvider protection,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var now = clock.GetUtcNow();
        var cipher = Cipher(protection);
        return Results.Ok(
            (await invitations.Of(group.Id, cancel)).Select(one =>
            {
                var link = one.Secret is { } secret ? LinkOf(http, settings, cipher.Open(secret)) : null;
                var state = Invitation.StateOf(one.Until, one.Uses, one.MostUses, now);
                return new
                {
                    one.Id,
                    one.For,
                    one.Email,
                    letter = one.Letter is { } letter ? Word(letter) : null,
                    role = one.Role.ToString().ToLowerInvariant(),
                    one.Asks,
                    until = one.Until.ToUnixTimeMilliseconds(),
                    one.MostUses,
                    one.Uses,
                    state = Word(state),
                    link,
                    modules = state == InvitationState.Open && !string.IsNullOrEmpty(link) ? SquareCode.Of(link) : null,
                };
            })
        );
    }

    /// <summary>
    /// Without a name a link is made. With a name it is for somebody who has an account here; with an e-mail address it is mailed, and whoever has the account finds it at
    /// their door as well: the answer is the same whether there is one.
    /// </summary>
    private static async Task<IResult> Invite(
        OwnedGroup group,
        Asked asked,
        InvitationStore invitations,
        PersonStore people,
        SpaceStore spaces,
        HttpContext http,
        Settings settings,
        MailSender mail,
        IDataProtectionProvider protection,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var who = asked.Who?.Trim() ?? "";
        Role? role = asked.Role switch
        {
            "reader" => Role.Reader,
            "writer" => Role.Writer,
            _ => null,
        };
        var invitation = new Invitation(role ?? Role.None, who.Length > 0 ? 1 : asked.Uses ?? 1, asked.Days ?? 14, asked.Asks);
        if (
            (invitation.Problem ?? (who.Length > MostWho ? Sentence.Of($"This is neither a name nor an e-mail address.") : null)) is
            { } problem
        )
            return Problems.BadInput(problem);
        var now = clock.GetUtcNow();
        var email = Accounts.EmailProblem(who) is null ? who : "";
        var named =
            who.Length == 0 ? []
            : email.Length > 0 ? (await people.FindByEmail(email, cancel) is { } one ? [one] : [])
            : await people.FindByName(who, cancel);
        if (who.Length > 0 && email.Length == 0 && named.Count != 1)
            return Problems.BadInput(
                named.Count == 0
                    ? Sentence.Of($"Nobody here is called “{who}”. Give the e-mail address, or send a link.")
                    : $"Several people here are called “{who}”. Give the e-mail address."
            );
        var person = named.Count == 1 ? named[0] : null;
        if (person is not null && await spaces.RoleIn(group.Id, person.Id, cancel) != Role.None)
            return Problems.BadInput(
                person.Id == group.Visitor.Person
                    ? Sentence.Of($"You are in this group already.")
                    : $"{person.Name} is in this group already."
            );

        var (kept, mailed) = (true, email.Length > 0 && mail.IsThere);
        string? link = null;
        if (who.Length == 0 || email.Length > 0)
        {
            var secret = Secrets.Draw();
            link = LinkOf(http, settings, secret);
            var id = await invitations.WriteLink(
                group.Id,
                group.Visitor.Person,
                invitation,
                person?.Id,
                secret,
                Cipher(protection).Encipher(secret),
                email,
                mailed,
                now,
                cancel
            );
            kept = id is not null;
            if (kept && mailed)
                await Post(group, email, link, id, invitation, people, spaces, mail, now, cancel);
        }
        else if (person is not null)
            kept = await invitations.WriteFor(person.Id, group.Id, group.Visitor.Person, invitation, now, cancel);
        if (!kept)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "too-many-invitations",
                $"{Invitation.MostOpen} invitations of this group are open. Take one back first."
            );
        return Results.Ok(new { link, mailed });
    }

    private static async Task Post(
        OwnedGroup group,
        string email,
        string link,
        Guid? id,
        Invitation invitation,
        PersonStore people,
        SpaceStore spaces,
        MailSender mail,
        DateTimeOffset now,
        CancellationToken cancel
    )
    {
        var by = (await people.Find(group.Visitor.Person, cancel))!;
        var name = (await spaces.Of(by.Id, cancel)).Single(space => space.Id == group.Id).Name;
        var lastDay = now.AddDays(invitation.Days).ToString("d MMMM yyyy", CultureInfo.InvariantCulture);
        await mail.Post(
            new Mail.Mail(
                email,
                $"{by.Name} invites you to “{name}”",
                $"Hello,\n\n{by.Name} keeps handwritten notebooks together with others in the group “{name}”, and invites you to come in. Open this address, until {lastDay}:\n\n{link}\n\nIf you do not know what this is about, do nothing.\n"
            ),
            id,
            cancel
        );
    }

    private static async Task<IResult> TakeBack(OwnedGroup group, Guid invitation, InvitationStore invitations, CancellationToken cancel) =>
        await invitations.TakeBack(group.Id, invitation, cancel) ? Results.NoContent() : Problems.NotHere();

    /// <summary>What a link leads to, for whoever holds it, also signed out.</summary>
    private static async Task<IResult> Look(
        Link link,
        HttpContext http,
        InvitationStore invitations,
        TimeProvider clock,
        CancellationToken cancel
    ) =>
        link.Secret is { Length: > 0 and <= 200 } secret
        && await invitations.Find(secret, http.User.Id(), clock.GetUtcNow(), cancel) is { } found
            ? Results.Ok(Shown(found))
            : NoInvitation();

    private static async Task<IResult> Join(
        Link link,
        HttpContext http,
        InvitationStore invitations,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (link.Secret is not { Length: > 0 and <= 200 } secret)
            return NoInvitation();
        var (what, space) = await invitations.Join(secret, http.User.Id(), link.Ask, clock.GetUtcNow(), cancel);
        return Answered(what, space);
    }

    /// <summary>What came of going in, as an answer.</summary>
    public static IResult Answered(Joining what, Guid space) =>
        what switch
        {
            Joining.Joined or Joining.WasIn => Results.Ok(new { space = (Guid?)space, state = "in" }),
            Joining.Asked => Results.Ok(new { space = (Guid?)null, state = "asked" }),
            Joining.Over => Problems.Of(
                StatusCodes.Status410Gone,
                "invitation-over",
                $"The last day of this invitation is over. You can ask the owners to let you in."
            ),
            Joining.UsedUp => Problems.Of(
                StatusCodes.Status410Gone,
                "invitation-used-up",
                $"As many people came by this invitation as it was for. You can ask the owners to let you in."
            ),
            Joining.Full => Problems.Of(
                StatusCodes.Status409Conflict,
                "group-full",
                $"This group has {Invitation.MostMembers} members, and takes no more."
            ),
            _ => NoInvitation(),
        };

    /// <summary>Who stands at the door: invitations for the one who asks, and those who ask to be let into the groups that this one looks after.</summary>
    private static async Task<IResult> Door(HttpContext http, InvitationStore invitations, TimeProvider clock, CancellationToken cancel) =>
        Results.Ok(
            new
            {
                invited = (await invitations.For(http.User.Id(), clock.GetUtcNow(), cancel)).Select(Shown),
                asking = (await invitations.AskingAt(http.User.Id(), cancel)).Select(one => new
                {
                    one.Space,
                    one.Group,
                    one.Person,
                    one.Name,
                    one.Colour,
                    askedAt = one.AskedAt.ToUnixTimeMilliseconds(),
                }),
            }
        );

    private static async Task<IResult> Answer(
        Guid invitation,
        Yes yes,
        HttpContext http,
        InvitationStore invitations,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (what, space) = await invitations.Answer(invitation, http.User.Id(), yes.Answer, clock.GetUtcNow(), cancel);
        return yes.Answer ? Answered(what, space) : Results.NoContent();
    }

    private static async Task<IResult> AnswerRequest(
        OwnedGroup group,
        Guid person,
        Yes yes,
        InvitationStore invitations,
        CancellationToken cancel
    ) =>
        await invitations.AnswerRequest(group.Id, person, yes.Answer, cancel) is Joining.Full
            ? Answered(Joining.Full, group.Id)
            : Results.NoContent();

    private static object Shown(FoundInvitation found) =>
        new
        {
            found.Id,
            found.Group,
            found.Colour,
            found.By,
            role = found.Role.ToString().ToLowerInvariant(),
            found.Asks,
            state = Word(found.State),
            // Which group it is, as the interface knows it, is told to those who are in.
            space = found.IsIn ? (Guid?)found.Space : null,
        };

    private static string Word(LetterState state) =>
        state switch
        {
            LetterState.OnItsWay => "on-its-way",
            LetterState.Waiting => "waiting",
            _ => "failed",
        };

    private static string Word(InvitationState state) =>
        state switch
        {
            InvitationState.Open => "open",
            InvitationState.Over => "over",
            _ => "used-up",
        };

    private static string LinkOf(HttpContext http, Settings settings, string secret) =>
        secret.Length == 0 ? "" : PeopleEndpoints.Link(http, settings, Path(secret));

    private static IResult NoInvitation() =>
        Problems.Of(
            StatusCodes.Status404NotFound,
            "no-invitation",
            $"This invitation is not there any more. Ask whoever gave it to you for another one."
        );
}
