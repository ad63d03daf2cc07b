// Whether the public validator finds members of the wrong type in glTF documents, one answer for each document of a list.
import { readFileSync } from 'node:fs';
import validator from 'gltf-validator';

const documents = JSON.parse(readFileSync(process.argv[2], 'utf8'));
const wrong = [];
for (const document of documents) {
    try {
        const report = await validator.validateString(document, { maxIssues: 0 });
        wrong.push(
            report.issues.messages
                .filter(({ code }) => /^(ARRAY_)?TYPE_MISMATCH$|^INVALID_INDEX$/.test(code))
                .map(({ pointer }) => pointer),
        );
    } catch {
        // Some places outside of everything are more than it takes.
        wrong.push(null);
    }
}
process.stdout.write(JSON.stringify(wrong));
