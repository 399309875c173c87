import { type HubConnection, HubConnectionBuilder, HttpTransportType, LogLevel } from '@microsoft/signalr';
import { MessagePackHubProtocol } from '@microsoft/signalr-protocol-msgpack';

/** A live connection to the server, not begun yet: over WebSockets alone, and known to be broken after 20 s of silence. */
export function hubAt(path: string): HubConnection {
  const hub = new HubConnectionBuilder()
    .withUrl(path, { transport: HttpTransportType.WebSockets, skipNegotiation: true })
    .withHubProtocol(new MessagePackHubProtocol())
    .configureLogging(LogLevel.None)
    .build();
  hub.serverTimeoutInMilliseconds = 20_000;
  hub.keepAliveIntervalInMilliseconds = 8_000;
  return hub;
}
