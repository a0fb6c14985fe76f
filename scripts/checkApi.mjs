// Reads an OpenAPI document from its input and says what two validators, independent of each other, find wrong with it.
import { text } from 'node:stream/consumers';
import SwaggerParser from '@apidevtools/swagger-parser';
import { Validator } from '@seriousme/openapi-schema-validator';

const document = await text(process.stdin);
const faults = [];
try {
  await SwaggerParser.validate(JSON.parse(document));
} catch (error) {
  faults.push(`first: ${error.message}`);
}
const { valid, errors } = await new Validator().validate(JSON.parse(document));
if (!valid) faults.push(`second: ${JSON.stringify(errors).slice(0, 2000)}`);
console.log(JSON.stringify(faults));
