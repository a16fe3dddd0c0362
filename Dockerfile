# Bold Ballast as one image: built in the first stage, served by an ordinary user in the second. The database is another service (docs/running.md).
ARG NODE_IMAGE=node:20-bookworm-slim
FROM ${NODE_IMAGE} AS build
WORKDIR /opt/bold-ballast
COPY package.json package-lock.json ./
COPY core/package.json core/
COPY contract/package.json contract/
COPY server/package.json server/
COPY web/package.json web/
RUN npm ci --no-audit --no-fund
COPY . .
RUN node scripts/build.mjs && npm prune --omit=dev --no-audit --no-fund

FROM ${NODE_IMAGE}
# pg_dump, pg_restore and a server of its own for trying copies out.
RUN mkdir -p /etc/postgresql-common/createcluster.d \
 && echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.d/00-no-main.conf \
 && apt-get update -qq && apt-get install -y -qq --no-install-recommends postgresql && rm -rf /var/lib/apt/lists/* \
 && useradd --system --create-home --home-dir /var/lib/bold-ballast --shell /usr/sbin/nologin bold-ballast
WORKDIR /opt/bold-ballast
COPY --from=build /opt/bold-ballast /opt/bold-ballast
USER bold-ballast
ENV NODE_ENV=production DATA_DIR=/var/lib/bold-ballast PORT=4600
EXPOSE 4600
VOLUME /var/lib/bold-ballast
HEALTHCHECK --interval=30s --timeout=5s --start-period=60s CMD ["node", "-e", "fetch('http://127.0.0.1:' + process.env.PORT + '/api/health/live').then((a) => process.exit(a.ok ? 0 : 1), () => process.exit(1))"]
STOPSIGNAL SIGTERM
CMD ["node", "scripts/serve.mjs"]
