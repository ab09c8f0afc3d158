import type { FieldsData } from "@kenjiuno/msgreader";

/** A person of a mail. */
export interface MsgPerson {
  readonly name: string;
  readonly address: string;
}

/** What a file says of a mail, as it stands there. */
export interface MsgMail {
  readonly from?: MsgPerson;
  readonly to: readonly MsgPerson[];
  readonly copy: readonly MsgPerson[];
  /** The headers that it came with, where it came by the internet. */
  readonly headers?: string;
  /** When it was sent, where no header says so. */
  readonly sent?: string;
  readonly subject?: string;
  readonly html?: string | Uint8Array;
  /** The code page of HTML that is there in bytes. */
  readonly page?: number;
  /** Rich Text Format, unpacked. */
  readonly rtf?: Uint8Array;
  readonly text?: string;
  readonly attachments: readonly {
    readonly name: string;
    readonly bytes: Uint8Array;
    readonly contentId?: string;
    readonly type?: string;
  }[];
}

/**
 * Takes a mail apart ([MS-OXMSG], [MS-OXRTFCP]).
 * @throws what the library throws about a file that is none
 */
export async function parseMsg(bytes: Uint8Array): Promise<MsgMail> {
  // It is written for CommonJS: its class is the default of what it gives by default.
  const { default: library } = await import("@kenjiuno/msgreader");
  const { decompressRTF } = await import("@kenjiuno/decompressrtf");
  const reader = new library.default(new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength));
  const fields = reader.getFileData();
  if (fields.error !== undefined) throw new Error(fields.error);
  const recipients = fields.recipients ?? [];
  const those = (type: FieldsData["recipType"]) =>
    recipients.filter((each) => (each.recipType ?? "to") === type).map((each) => personOf(each));
  const { compressedRtf, html = fields.bodyHtml } = fields;
  const from = personOf({
    name: fields.senderName,
    email: fields.senderEmail,
    smtpAddress: fields.senderSmtpAddress ?? fields.sentRepresentingSmtpAddress,
  });
  const sent = fields.clientSubmitTime ?? fields.messageDeliveryTime;
  return {
    ...(from.name + from.address !== "" && { from }),
    to: those("to"),
    copy: those("cc"),
    ...(fields.headers !== undefined && { headers: fields.headers }),
    ...(sent !== undefined && { sent }),
    ...(fields.subject !== undefined && { subject: fields.subject }),
    ...(html !== undefined && { html }),
    ...(fields.internetCodepage !== undefined && { page: fields.internetCodepage }),
    ...(compressedRtf && { rtf: Uint8Array.from(decompressRTF(Array.from(compressedRtf))) }),
    ...(fields.body !== undefined && { text: fields.body }),
    attachments: (fields.attachments ?? []).map((each) => {
      const { fileName, content } = reader.getAttachment(each);
      const name = each.fileName ?? fileName ?? each.name ?? "";
      return {
        name: each.innerMsgContent ? `${each.name ?? "mail"}.msg` : name,
        bytes: content,
        ...(each.pidContentId !== undefined && { contentId: each.pidContentId }),
        ...(each.attachMimeTag !== undefined && { type: each.attachMimeTag }),
      };
    }),
  };
}

function personOf({
  name = "",
  email = "",
  smtpAddress,
}: {
  readonly name?: string | undefined;
  readonly email?: string | undefined;
  readonly smtpAddress?: string | undefined;
}): MsgPerson {
  // Within a firm the address may be a path that is none outside.
  const address = smtpAddress ?? (email.includes("@") ? email : "");
  return { name: name === address ? "" : name, address };
}
