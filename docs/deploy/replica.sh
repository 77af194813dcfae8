#!/bin/sh
# A second database that follows the first, ready to take its place. Run as administrator, with PRIMARY and FOLLOWER (addresses) and
# PASSWORD (of the account that follows) in the environment:
#   sh replica.sh prepare   on the first machine: the account that may follow
#   sh replica.sh follow    on the second: takes everything over, then follows; it only reads from then on
#   sh replica.sh state     on the second: whether it follows, and how far behind
#   sh replica.sh promote   on the second, when the first is lost: it follows no more and takes writes
# Both servers need a log and a number of their own before; see the README beside this file.
# TLS=no leaves the line between them open: only where nobody else is on it. CLIENT is how this machine's server is asked.
set -eu
CLIENT=${CLIENT:-mariadb}
DUMP=${DUMP:-mariadb-dump}
DATABASE=${DATABASE:-arrow_bench}
if [ "${TLS:-yes}" = no ]; then require= ssl=0 dump_ssl=--skip-ssl; else require='REQUIRE SSL' ssl=1 dump_ssl=--ssl; fi

case ${1:-} in
prepare)
    $CLIENT <<SQL
CREATE OR REPLACE USER 'follower'@'$FOLLOWER' IDENTIFIED BY '$PASSWORD' $require;
GRANT RELOAD, PROCESS, REPLICATION SLAVE, BINLOG MONITOR ON *.* TO 'follower'@'$FOLLOWER';
GRANT SELECT, LOCK TABLES, SHOW VIEW, TRIGGER ON \`$DATABASE\`.* TO 'follower'@'$FOLLOWER';
SQL
    ;;
follow)
    part=$(mktemp)
    trap 'rm -f "$part"' EXIT
    # the state and its place in the first one's log are written together, so nothing is missed and nothing comes twice
    MYSQL_PWD=$PASSWORD $DUMP --no-defaults --host="$PRIMARY" --port="${PORT:-3306}" --user=follower $dump_ssl \
        --single-transaction --master-data=1 --gtid --databases "$DATABASE" >"$part"
    $CLIENT -e 'STOP SLAVE; RESET SLAVE ALL; RESET MASTER; SET GLOBAL read_only=0'
    $CLIENT <"$part"
    $CLIENT <<SQL
CHANGE MASTER TO MASTER_HOST='$PRIMARY', MASTER_PORT=${PORT:-3306}, MASTER_USER='follower', MASTER_PASSWORD='$PASSWORD',
    MASTER_USE_GTID=slave_pos, MASTER_SSL=$ssl, MASTER_CONNECT_RETRY=5;
SET GLOBAL read_only=1;
START SLAVE;
SQL
    ;;
state)
    $CLIENT -e 'SHOW SLAVE STATUS\G' | grep -E 'Slave_(IO|SQL)_Running|Seconds_Behind_Master|Last_(IO|SQL)_Error:'
    ;;
promote)
    $CLIENT -e 'STOP SLAVE; RESET SLAVE ALL; SET GLOBAL read_only=0'
    ;;
*)
    sed -n '2,10s/^# \{0,1\}//p' "$0"
    exit 2
    ;;
esac
