# The relay with both pages, and nothing that is only needed to build or try them.
FROM node:20-bookworm-slim AS packages
WORKDIR /acolhida
COPY package.json package-lock.json .npmrc ./
COPY core/package.json core/
COPY relay/package.json relay/
COPY demo/package.json demo/
COPY web/package.json web/
COPY terminal/package.json terminal/
COPY e2e/package.json e2e/
COPY bench/package.json bench/

FROM packages AS built
RUN npm ci
COPY . .
RUN npm run build

FROM packages
ENV NODE_ENV=production
RUN npm ci --omit=dev --workspace @acolhida/relay --workspace @acolhida/core --workspace @acolhida/demo
COPY core core
COPY relay relay
COPY demo demo
COPY tsconfig.base.json tsconfig.json ./
COPY --from=built /acolhida/web/dist web/dist
RUN mkdir /data && chown node:node /data
USER node
ENV ACOLHIDA_FILE=/data/relay.sqlite ACOLHIDA_HOST=0.0.0.0
VOLUME /data
EXPOSE 4180 4181
# A first start is made with: docker compose run --rm relay --new
ENTRYPOINT ["node", "--import", "tsx", "relay/main.ts"]
