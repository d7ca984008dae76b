package server

import (
	"bytes"
	"encoding/json"
	"fmt"
	"net/http"
	"strings"
	"time"

	"github.com/gin-gonic/gin"

	"nimblebight/core/piece"
	"nimblebight/formats/document"
	"nimblebight/store"
)

// histories answers for the revisions of a piece.
func (s *Server) histories(r *gin.RouterGroup) {
	r.GET("/pieces/:id/revisions", s.revisions)
	r.PUT("/pieces/:id/revisions/:revision", s.nameRevision)
	r.POST("/pieces/:id/revisions/:revision/back", s.goBack)
	r.POST("/pieces/:id/aside", s.setAside)
}

const mostName = 80

func revision(r store.Revision) Revision {
	out := Revision{ID: r.ID, CreatedAt: r.CreatedAt, Name: r.Name, Aside: r.Aside, Current: r.Current}
	var sum summary
	if json.Unmarshal([]byte(r.Summary.Text), &sum) == nil {
		out.LengthMM, out.Actions = sum.LengthMM, sum.Actions
	}
	return out
}

func (s *Server) revisions(c *gin.Context) {
	n, err := id(c, "id")
	if err != nil {
		failed(c, err)
		return
	}
	list, err := s.store.Revisions(on(c), n)
	out := make([]Revision, 0, len(list))
	for _, r := range list {
		out = append(out, revision(r))
	}
	answer(c, out, err)
}

// two reads the piece and the revision of a request.
func two(c *gin.Context) (piece, revision int64, err error) {
	if piece, err = id(c, "id"); err == nil {
		revision, err = id(c, "revision")
	}
	return piece, revision, err
}

func (s *Server) nameRevision(c *gin.Context) {
	var req NameRequest
	err := read(c, &req)
	n, r, err2 := two(c)
	if err == nil {
		err = err2
	}
	req.Name = strings.TrimSpace(req.Name)
	if err == nil && len([]rune(req.Name)) > mostName {
		err = piece.Problems{{Path: "name", Message: fmt.Sprintf("is longer than %d letters", mostName)}}
	}
	if err == nil {
		err = s.store.Name(on(c), n, r, req.Name)
	}
	answer(c, nil, err)
}

// goBack makes an old revision, or one that was set aside, the newest one.
func (s *Server) goBack(c *gin.Context) {
	var req StepRequest
	err := read(c, &req)
	n, r, err2 := two(c)
	if err == nil {
		err = err2
	}
	if err != nil {
		failed(c, err)
		return
	}
	old, err := s.store.Revision(on(c), n, r)
	if err != nil {
		failed(c, err)
		return
	}
	d, err := document.Decode(old.Document)
	if err != nil {
		failed(c, err)
		return
	}
	s.keep(c, req.Revision, d)
}

// setAside keeps beside the history what somebody made and another window was
// first with.
func (s *Server) setAside(c *gin.Context) {
	var req struct {
		Document json.RawMessage `json:"document"`
	}
	err := read(c, &req)
	n, err2 := id(c, "id")
	if err == nil {
		err = err2
	}
	if err != nil {
		failed(c, err)
		return
	}
	d, err := document.Decode(req.Document)
	if err != nil {
		failed(c, err)
		return
	}
	b, sum, err := s.summed(c, d)
	if err != nil {
		failed(c, err)
		return
	}
	r, err := s.store.SetAside(on(c), n, b, sum, "mine, set aside "+time.Now().Format("2 January 15:04"))
	answer(c, revision(r), err)
}

// fileName is a name that every file system takes, "" where nothing is left of it.
func fileName(name string) string {
	var b strings.Builder
	for _, r := range strings.ToLower(name) {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			b.WriteRune(r)
		case b.Len() > 0 && !strings.HasSuffix(b.String(), "-"):
			b.WriteByte('-')
		}
	}
	out := strings.Trim(b.String(), "-")
	return out[:min(len(out), 60)]
}

func indented(b []byte) []byte {
	var out bytes.Buffer
	if json.Indent(&out, b, "", "  ") != nil {
		return b
	}
	out.WriteByte('\n')
	return out.Bytes()
}

// folder answers for the data folder: who it is, its backup and putting one back.
func (s *Server) folder(r *gin.RouterGroup) {
	r.GET("/folder", func(c *gin.Context) {
		alone, err := s.store.CopiedAlone(on(c))
		answer(c, Folder{Identity: s.store.Identity(), CopiedAlone: alone, Door: s.door != nil}, err)
	})
	r.POST("/folder/seen", func(c *gin.Context) { answer(c, nil, s.store.SeenCopied(on(c))) })
	r.GET("/backup", s.backup)
	r.POST("/restore", s.restore)
}

// Program is what backups say they were made by.
const Program = "Nimble Bight"

// backup sends all of the folder as one archive. It is put together first, so
// that a fault is told and not a file that is cut off.
func (s *Server) backup(c *gin.Context) {
	var b bytes.Buffer
	if err := s.store.Backup(on(c), &b, Program); err != nil {
		failed(c, err)
		return
	}
	c.Header("Content-Disposition", fmt.Sprintf(`attachment; filename="nimble-bight-%s.zip"`, time.Now().Format("2006-01-02")))
	slowly(c)
	c.Data(http.StatusOK, "application/zip", b.Bytes())
}

// slowly lets a large request and a large answer take their time.
func slowly(c *gin.Context) {
	const within = 10 * time.Minute
	by, out := time.Now().Add(within), http.NewResponseController(c.Writer)
	_, _ = out.SetReadDeadline(by), out.SetWriteDeadline(by) // a test's writer has none
}

// restore puts a backup back: ?how=merge|replace, with ?trial=1 only telling what
// it would do.
func (s *Server) restore(c *gin.Context) {
	how := store.How(c.DefaultQuery("how", string(store.Merge)))
	if how != store.Merge && how != store.Replace {
		failed(c, &bodyError{"A backup is put back by how=merge or how=replace."})
		return
	}
	slowly(c)
	b, err := c.GetRawData()
	if err != nil {
		failed(c, err)
		return
	}
	rep, err := s.store.Restore(on(c), bytes.NewReader(b), int64(len(b)), how, c.Query("trial") != "")
	s.learnt.forget()
	if err == nil && c.Query("trial") == "" {
		s.chooseDevices(c) // the settings may be other ones
		err = s.SumAll(on(c))
	}
	answer(c, rep, err)
}
