using CalmQuill.CalendarFeed;

// A calendar service in small: CalmQuill.CalendarFeed PORT serves /lantern.ics on loopback, and /lantern-later.ics as it is some days later.
var builder = WebApplication.CreateSlimBuilder();
builder.Logging.SetMinimumLevel(LogLevel.Warning);
builder.WebHost.UseUrls($"http://127.0.0.1:{(args.Length > 0 ? args[0] : "5481")}");
var feed = builder.Build();
feed.MapGet("/lantern.ics", () => Calendar(changed: false));
feed.MapGet("/lantern-later.ics", () => Calendar(changed: true));
feed.Run();

static IResult Calendar(bool changed) =>
    Results.Text(LanternCalendar.Write(DateOnly.FromDateTime(DateTime.Now), changed), "text/calendar; charset=utf-8");
