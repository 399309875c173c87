using CalmQuill.Core.Library;
using CalmQuill.Server.Groups;
using CalmQuill.Server.Mail;
using CalmQuill.Server.Sharing;
using CalmQuill.Store.Groups;
using CalmQuill.Store.Mail;
using CalmQuill.Store.People;
using CalmQuill.Store.Spaces;
using Microsoft.AspNetCore.Antiforgery;
using Microsoft.AspNetCore.Identity;

namespace CalmQuill.Server.People;

/// <summary>Making an account, and changing name, e-mail address, password and second factor.</summary>
internal static class PeopleEndpoints
{
    /// <summary>How many invitations of one person may wait to be used.</summary>
    private const int MostInvitations = 50;

    private static readonly TimeSpan InvitationLasts = TimeSpan.FromDays(14),
        RegistrationLasts = TimeSpan.FromDays(1),
        PasswordLasts = TimeSpan.FromHours(2);

    internal sealed record NewPerson(
        string? Name,
        string? Email,
        string? Password,
        string? Invitation,
        string? Group,
        string? Share,
        string? Passphrase
    );

    internal sealed record Confirmation(string? Letter);

    internal sealed record Details(string? Name, string? Email, string? Password, string? Colour);

    internal sealed record NewPassword(string? Old, string? New);

    internal sealed record DigestChoice(bool On);

    private static async Task<IResult> Digest(HttpContext http, DigestStore digests, MailSender mail, CancellationToken cancel) =>
        Results.Ok(new { on = await digests.Wants(http.User.Id(), cancel), canMail = mail.IsThere });

    private static async Task<IResult> SetDigest(DigestChoice choice, HttpContext http, DigestStore digests, CancellationToken cancel)
    {
        await digests.Set(http.User.Id(), choice.On, cancel);
        return Results.NoContent();
    }

    internal sealed record Forgotten(string? Email);

    internal sealed record Anew(string? Letter, string? Password);

    internal sealed record Factor(string? Secret, string? Code, string? Password);

    public static void MapPeople(this IEndpointRouteBuilder api)
    {
        api.MapPost("/people", Register);
        api.MapPost("/people/confirmations", Confirm);
        api.MapPost("/people/forgotten", Forget);
        api.MapPost("/people/passwords", SetAnew);
        api.MapPost("/invitations", Invite).RequireAuthorization();
        api.MapPut("/people/me", ChangeDetails).RequireAuthorization();
        api.MapPut("/people/me/password", ChangePassword).RequireAuthorization();
        api.MapGet("/people/me/digest", Digest).RequireAuthorization();
        api.MapPut("/people/me/digest", SetDigest).RequireAuthorization();
        api.MapPost("/people/me/password/check", CheckPassword).RequireAuthorization();
        api.MapPost("/people/me/second-factor", Offer).RequireAuthorization();
        api.MapPut("/people/me/second-factor", TurnOn).RequireAuthorization();
        api.MapPost("/people/me/second-factor/off", TurnOff).RequireAuthorization();
    }

    /// <summary>
    /// With an invitation, into a group or not, the account is made at once. Without one, where that is allowed, a letter is written to the address, whether or not there is an account: the
    /// answer, and the time it takes, are the same.
    /// </summary>
    private static async Task<IResult> Register(
        NewPerson asked,
        HttpContext http,
        PersonStore people,
        SpaceStore spaces,
        LetterStore letters,
        InvitationStore invitations,
        SharedLinks links,
        MailSender mail,
        Settings settings,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        var (name, email, password) = (asked.Name?.Trim() ?? "", asked.Email?.Trim() ?? "", asked.Password ?? "");
        // A class that opens one link together is no guessing: only where they come from is counted.
        var byGroup = asked.Group is { Length: > 0 and <= 200 };
        var byShare = asked.Share is { Length: > 0 and <= 200 };
        if (byGroup || byShare ? !await limiter.AllowsFrom(http, cancel) : !await limiter.Allows("registering", http, null, cancel))
            return Problems.TooMany();
        if ((Names.Problem(name) ?? Accounts.EmailProblem(email) ?? Accounts.PasswordProblem(password)) is { } problem)
            return Problems.BadInput(problem);
        if (byShare)
        {
            var (found, denied) = await links.Enter(asked.Share, asked.Passphrase, null, http, cancel);
            if (found is null)
                return denied!;
            var person = Accounts.Make(Guid.NewGuid(), email, name, password, hasher);
            var came = await links.RegisterAndCome(person, asked.Share!, cancel);
            if (came is null)
                return EmailTaken();
            if (came is false)
                return SharedLinks.Nothing();
            await http.SignInAs(person, cancel);
            return await SessionEndpoints.Show(http, people, spaces, antiforgery, settings, mail, clock, cancel);
        }

        if (byGroup)
        {
            var person = Accounts.Make(Guid.NewGuid(), email, name, password, hasher);
            var joined = await invitations.RegisterAndJoin(person, Guid.NewGuid(), asked.Group!, clock.GetUtcNow(), cancel);
            if (joined is null)
                return EmailTaken();
            if (joined is not (Joining.Joined or Joining.Asked))
                return InvitationEndpoints.Answered(joined.Value, Guid.Empty);
            await http.SignInAs(person, cancel);
            return await SessionEndpoints.Show(http, people, spaces, antiforgery, settings, mail, clock, cancel);
        }

        if (asked.Invitation is { Length: > 0 and <= 200 } invitation)
        {
            if (!await letters.IsGood(invitation, LetterPurpose.Invitation, cancel))
                return NoLetter();
            var person = Accounts.Make(Guid.NewGuid(), email, name, password, hasher);
            // The address first: an invitation is not used up by an address that is taken.
            if (await people.FindByEmail(email, cancel) is not null)
                return EmailTaken();
            if (await letters.Take(invitation, LetterPurpose.Invitation, cancel) is null)
                return NoLetter();
            if (!await people.Register(person, Guid.NewGuid(), cancel))
                return EmailTaken();
            await http.SignInAs(person, cancel);
            return await SessionEndpoints.Show(http, people, spaces, antiforgery, settings, mail, clock, cancel);
        }

        if (!settings.OpenRegistration || !mail.IsThere)
            return Problems.Of(
                StatusCodes.Status403Forbidden,
                "invitation-needed",
                $"An account here is made by invitation. Ask somebody who has one for a link."
            );
        var hash = hasher.HashPassword(null!, password);
        var secret = await letters.Write(new Letter(LetterPurpose.Registration, null, null, email, name, hash), RegistrationLasts, cancel);
        var known = await people.FindByEmail(email, cancel);
        mail.Send(
            known is null
                ? new Mail.Mail(
                    email,
                    "Your account at Calm Quill",
                    $"Hello {name},\n\nto finish your account, open this address within a day:\n\n{Link(http, settings, $"/welcome#letter={secret}")}\n\nIf you did not ask for this, do nothing.\n"
                )
                : new Mail.Mail(
                    email,
                    "You have an account at Calm Quill",
                    $"Hello {known.Name},\n\nsomebody asked for a new account with this address. You have one already. If you have forgotten your password, ask for a new one at\n\n{Link(http, settings, "/sign-in")}\n"
                )
        );
        return Written();
    }

    private static async Task<IResult> Confirm(
        Confirmation asked,
        HttpContext http,
        PersonStore people,
        SpaceStore spaces,
        LetterStore letters,
        MailSender mail,
        Settings settings,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        IAntiforgery antiforgery,
        TimeProvider clock,
        CancellationToken cancel
    )
    {
        if (!await limiter.Allows("registering", http, null, cancel))
            return Problems.TooMany();
        if (
            asked.Letter is not { Length: > 0 and <= 200 } secret
            || await letters.Take(secret, LetterPurpose.Registration, cancel) is not { } letter
        )
            return NoLetter();
        var person = Accounts.Make(Guid.NewGuid(), letter.Email, letter.Name, "", hasher) with { PasswordHash = letter.PasswordHash };
        // Whoever holds the letter reads the address's mail, so this tells nobody else.
        if (!await people.Register(person, Guid.NewGuid(), cancel))
            return EmailTaken();
        await http.SignInAs(person, cancel);
        return await SessionEndpoints.Show(http, people, spaces, antiforgery, settings, mail, clock, cancel);
    }

    private static async Task<IResult> Invite(HttpContext http, LetterStore letters, Settings settings, CancellationToken cancel)
    {
        if (await letters.Waiting(http.User.Id(), cancel) >= MostInvitations)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "too-many-invitations",
                $"{MostInvitations} of your invitations wait to be used. Wait until some are, or are over."
            );
        var secret = await letters.Write(new Letter(LetterPurpose.Invitation, http.User.Id(), null), InvitationLasts, cancel);
        return Results.Ok(new { link = Link(http, settings, InvitationPath(secret)), days = (int)InvitationLasts.TotalDays });
    }

    /// <summary>Where somebody invited makes an account.</summary>
    public static string InvitationPath(string secret) => $"/welcome#invitation={secret}";

    /// <summary>Where somebody sets a new password.</summary>
    public static string PasswordPath(string secret) => $"/new-password#letter={secret}";

    private static async Task<IResult> Forget(
        Forgotten asked,
        HttpContext http,
        PersonStore people,
        LetterStore letters,
        MailSender mail,
        Settings settings,
        SignInLimiter limiter,
        CancellationToken cancel
    )
    {
        var email = asked.Email?.Trim() ?? "";
        if (!await limiter.Allows("forgotten " + email, http, null, cancel))
            return Problems.TooMany();
        if (Accounts.EmailProblem(email) is { } problem)
            return Problems.BadInput(problem);
        if (!mail.IsThere)
            return Problems.Of(
                StatusCodes.Status409Conflict,
                "no-mail",
                $"This server sends no letters. Ask the person who looks after it for a new password."
            );
        var person = await people.FindByEmail(email, cancel);
        // A letter to nobody takes as long to write as one to somebody.
        var secret = await letters.Write(new Letter(LetterPurpose.Password, null, person?.Id), PasswordLasts, cancel);
        if (person is not null)
            mail.Send(
                new Mail.Mail(
                    person.Email,
                    "A new password for Calm Quill",
                    $"Hello {person.Name},\n\nto set a new password, open this address within two hours:\n\n{Link(http, settings, PasswordPath(secret))}\n\nIf you did not ask for this, do nothing.\n"
                )
            );
        return Written();
    }

    /// <summary>Sets a new password by a letter, and ends all sign-ins.</summary>
    private static async Task<IResult> SetAnew(
        Anew asked,
        HttpContext http,
        PersonStore people,
        LetterStore letters,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        CancellationToken cancel
    )
    {
        if (!await limiter.Allows("new password", http, null, cancel))
            return Problems.TooMany();
        if (Accounts.PasswordProblem(asked.Password ?? "") is { } problem)
            return Problems.BadInput(problem);
        if (
            asked.Letter is not { Length: > 0 and <= 200 } secret
            || await letters.Take(secret, LetterPurpose.Password, cancel) is not { Person: { } person }
        )
            return NoLetter();
        await people.SetPassword(person, hasher.HashPassword(null!, asked.Password!), Guid.Empty, cancel);
        return Results.NoContent();
    }

    private static async Task<IResult> ChangeDetails(
        Details asked,
        HttpContext http,
        PersonStore people,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        Settings settings,
        CancellationToken cancel
    )
    {
        var person = (await people.Find(http.User.Id(), cancel))!;
        var (name, email) = (asked.Name?.Trim() ?? person.Name, asked.Email?.Trim() ?? person.Email);
        var colour = asked.Colour ?? person.Colour;
        if ((Names.Problem(name) ?? Accounts.EmailProblem(email) ?? Accounts.ColourProblem(colour)) is { } problem)
            return Problems.BadInput(problem);
        if (email != person.Email)
        {
            if (!await limiter.Allows($"details of {person.Id}", http, null, cancel))
                return Problems.TooMany();
            if (!hasher.IsPassword(person, asked.Password, settings.IsDemonstration))
                return Problems.Of(
                    StatusCodes.Status400BadRequest,
                    "wrong-password",
                    string.IsNullOrEmpty(asked.Password)
                        ? Sentence.Of($"To change the e-mail address, give your password as well.")
                        : $"This is not your password. The e-mail address stays as it is."
                );
        }

        return await people.Update(person.Id, name, email, colour, cancel) ? Results.NoContent() : EmailTaken();
    }

    /// <summary>Ends all other sign-ins; this one stays.</summary>
    private static async Task<IResult> ChangePassword(
        NewPassword asked,
        HttpContext http,
        PersonStore people,
        IPasswordHasher<Person> hasher,
        SignInLimiter limiter,
        Settings settings,
        CancellationToken cancel
    )
    {
        var person = (await people.Find(http.User.Id(), cancel))!;
        if (!await limiter.Allows($"details of {person.Id}", http, null, cancel))
            return Problems.TooMany();
        if (!hasher.IsPassword(person, asked.Old, settings.IsDemonstration))
            return Problems.Of(StatusCodes.Status400BadRequest, "wrong-password", $"The old password is not right.");
        if (Accounts.PasswordProblem(asked.New ?? "") is { } problem)
            return Problems.BadInput(problem);
        await people.SetPassword(person.Id, hasher.HashPassword(person, asked.New!), http.User.Session(), cancel);
        return Results.NoContent();
    }

    /// <summary>Whether a password is the person's: a device that is going to ask for it without a connection makes sure of it first.</summary>
    private static async Task<IResult> CheckPassword(NewPassword asked, HttpContext http, OwnPassword password, CancellationToken cancel)
    {
        return (await password.Ask(http, asked.Old, cancel)).Refused ?? Results.NoContent();
    }

    /// <summary>A fresh secret for an authenticator. Nothing is turned on until a code of it is given.</summary>
    private static async Task<IResult> Offer(HttpContext http, PersonStore people, CancellationToken cancel)
    {
        var secret = SecondFactor.NewSecret();
        var address = SecondFactor.AddressOf(secret, (await people.Find(http.User.Id(), cancel))!.Email);
        return Results.Ok(
            new
            {
                secret,
                address,
                modules = SquareCode.Of(address),
            }
        );
    }

    private static async Task<IResult> TurnOn(
        Factor asked,
        HttpContext http,
        OwnPassword password,
        SecondFactor factor,
        CancellationToken cancel
    )
    {
        var (person, refused) = await password.Ask(http, asked.Password, cancel);
        if (refused is not null)
            return refused;
        if (person.SecondFactor is not null)
            return Problems.Of(StatusCodes.Status409Conflict, "second-factor-on", $"The second factor is on already. Turn it off first.");
        if (
            asked.Secret is not { Length: >= 16 and <= 64 } secret
            || factor.StepOf(secret, (asked.Code ?? "").Replace(" ", "", StringComparison.Ordinal)) is null
        )
            return Problems.Of(
                StatusCodes.Status400BadRequest,
                "wrong-code",
                $"This code does not fit. Look at the clock of the device that shows it."
            );
        return Results.Ok(new { recoveryCodes = await factor.TurnOn(person.Id, secret, cancel) });
    }

    private static async Task<IResult> TurnOff(
        Factor asked,
        HttpContext http,
        OwnPassword password,
        SecondFactor factor,
        CancellationToken cancel
    )
    {
        var (person, refused) = await password.Ask(http, asked.Password, cancel);
        if (refused is not null)
            return refused;
        await factor.TurnOff(person.Id, cancel);
        return Results.NoContent();
    }

    internal static string Link(HttpContext http, Settings settings, string path) =>
        (settings.PublicUrl?.ToString() ?? $"{http.Request.Scheme}://{http.Request.Host}").TrimEnd('/') + path;

    private static IResult Written() =>
        Results.Json(
            new { words = "We wrote to you. Open the address in the letter to go on." },
            statusCode: StatusCodes.Status202Accepted
        );

    private static IResult NoLetter() =>
        Problems.Of(StatusCodes.Status400BadRequest, "no-letter", $"This link was used already, or its time is over. Ask for a new one.");

    private static IResult EmailTaken() =>
        Problems.Of(StatusCodes.Status409Conflict, "email-taken", $"There is an account with this e-mail address already.");
}
