using CalmQuill.Documents;
using Npgsql;

namespace CalmQuill.Server.Limits;

/// <summary>Turns a database that cannot answer now into “busy, ask again”, and what cannot be kept or is too much into a refusal; what remains is a fault of ours.</summary>
internal sealed class Busy(RequestDelegate next, ILogger<Busy> log)
{
    private static readonly HashSet<string> WaitStates =
    [
        PostgresErrorCodes.LockNotAvailable,
        PostgresErrorCodes.QueryCanceled,
        PostgresErrorCodes.DeadlockDetected,
        PostgresErrorCodes.SerializationFailure,
        PostgresErrorCodes.TooManyConnections,
        PostgresErrorCodes.AdminShutdown,
        PostgresErrorCodes.CrashShutdown,
        PostgresErrorCodes.CannotConnectNow,
        PostgresErrorCodes.DiskFull,
        PostgresErrorCodes.OutOfMemory,
        "25P03",
    ];

    private static readonly HashSet<string> BadTextStates =
    [
        PostgresErrorCodes.CharacterNotInRepertoire,
        PostgresErrorCodes.UntranslatableCharacter,
    ];

    public async Task InvokeAsync(HttpContext http)
    {
        try
        {
            await next(http);
        }
        catch (PostgresException problem) when (BadTextStates.Contains(problem.SqlState) && !http.Response.HasStarted)
        {
            await Problems.BadInput($"This text holds signs that cannot be kept. Nothing was changed.").ExecuteAsync(http);
        }
        catch (PrintBudgetException tooMuch) when (!http.Response.HasStarted)
        {
            await Problems.Of(StatusCodes.Status422UnprocessableEntity, "too-much", tooMuch.Sentence).ExecuteAsync(http);
        }
        catch (Exception problem) when (IsBusy(problem) && !http.Response.HasStarted)
        {
            log.LogWarning(problem, "The database could not answer {Path} now.", http.Request.Path);
            http.Response.Headers.RetryAfter = "2";
            await Problems
                .Of(StatusCodes.Status503ServiceUnavailable, "busy", $"The server is busy. It is tried again in a moment.")
                .ExecuteAsync(http);
        }
        catch (OperationCanceledException) when (http.RequestAborted.IsCancellationRequested && !http.Response.HasStarted)
        {
            // Either nobody waits any more, or it took too long.
            http.Response.Headers.RetryAfter = "10";
            await Problems
                .Of(StatusCodes.Status503ServiceUnavailable, "too-long", $"This took too long, and was given up. Ask for less at once.")
                .ExecuteAsync(http);
        }
    }

    private static bool IsBusy(Exception problem) =>
        problem switch
        {
            PostgresException known => WaitStates.Contains(known.SqlState),
            NpgsqlException => true,
            TimeoutException => true,
            _ => false,
        };
}
