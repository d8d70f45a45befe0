[{{range $i, $l := .}}{{if $i}},{{end}}
{"name": {{printf "%q" $l.Name}}, "version": {{printf "%q" $l.Version}}, "licence": {{printf "%q" $l.LicenseName}}, "path": {{printf "%q" $l.LicensePath}}}{{end}}]
